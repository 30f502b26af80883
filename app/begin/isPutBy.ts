/** Whether answers are put by; apart from what reads them, so that the first view stays light. */
import { forget, recall } from '../data/tabMemory';

export const PUT_BY = 'beginning';

export const isPutBy = (): boolean => recall(PUT_BY) !== null;
export const forgetPutBy = (): void => forget(PUT_BY);
