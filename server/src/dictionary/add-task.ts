import { workerData } from 'piscina';
import type { Identity } from '../access/identity';
import { connect } from '../db/database';
import { logTrouble } from '../work/log';
import { task } from '../work/task';
import { addDictionary, readDictionary, type DictionaryFile } from './added';
import type { AdderData } from './adder';

const { databaseUrl } = workerData as AdderData;
const { database } = connect(databaseUrl, logTrouble, 1);

/* What threads that add dictionaries run: the new one's id comes back. */
export const add = task(
  ({ identity, files }: { identity: Identity; files: readonly DictionaryFile[] }) =>
    addDictionary(database, identity, readDictionary(files)),
);
