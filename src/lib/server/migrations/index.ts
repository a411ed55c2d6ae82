/** Every migration, oldest first. They are never edited once released, only added to. */
import type { Migration } from 'kysely';
import * as charts from './001-charts';
import * as views from './002-views';

export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '001-charts': charts,
  '002-views': views,
};
