export { load } from '../+page.server';
