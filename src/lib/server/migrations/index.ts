/** Every migration, oldest first. They are never edited once released, only added to. */
import type { Migration } from 'kysely';
import * as charts from './001-charts';
import * as views from './002-views';
import * as licks from './003-licks';
import * as log from './004-log';
import * as takes from './005-takes';
import * as rule from './006-rule';
import * as revisions from './007-revisions';

export const MIGRATIONS: Readonly<Record<string, Migration>> = {
  '001-charts': charts,
  '002-views': views,
  '003-licks': licks,
  '004-log': log,
  '005-takes': takes,
  '006-rule': rule,
  '007-revisions': revisions,
};
