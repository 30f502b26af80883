export { LIBRARY } from './recipes';
