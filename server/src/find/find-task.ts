import type { FindRequest } from '@stylet/core/api';
import { workerData } from 'piscina';
import type { Identity } from '../access/identity';
import { connect } from '../db/database';
import { logTrouble } from '../work/log';
import { task } from '../work/task';
import { findInLibrary } from './find';
import type { FinderData } from './finder';
import { SheetTexts } from './sheet-texts';
import { DocumentSheets } from './sheets';

const { databaseUrl } = workerData as FinderData;
const { finding } = connect(databaseUrl, logTrouble);
const tools = { finding, documentSheets: new DocumentSheets(), sheetTexts: new SheetTexts() };

/* What threads that find run. */
export const find = task(({ request, identity }: { request: FindRequest; identity: Identity }) =>
  findInLibrary(tools, identity, request),
);
export const prepare = task(() => undefined);
