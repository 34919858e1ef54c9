/** What the interface says, in the language of this device: so far there is one. Another one is a file of the same shape as `en.ts`, chosen here. */
import { en } from './en';

export type Words = typeof en;

export const say: Words = en;
