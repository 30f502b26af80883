export { ExactSearch, type Times } from './search';
