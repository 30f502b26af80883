/** Reads logs away from the page; apart from the reader of lists, which need not know what a log is. */
import { expose } from 'comlink';
import { readLogFile } from '#core/log';

expose({ readLogFile });
