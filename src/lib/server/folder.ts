/** Where everything the player makes is kept. */
import { resolve } from 'node:path';

export const dataFolder = (): string => resolve(process.env['CORVEL_DATA'] ?? './data');

let aside: string | null = null;

/** Where the database that is open stands: in the data folder, or a copy of it where that takes no writing. */
export const databaseFolder = (): string => aside ?? dataFolder();
export const readFrom = (folder: string): void => void (aside = folder);
