import { packRows, catalogueRows, copiesRow, backupRow } from './library';
import { print } from './rows';
const what = process.argv[2];
if (!what || what === 'copies') console.log(print([copiesRow(20000)]));
if (!what || what === 'pack') console.log(print(await packRows(5000)));
if (!what || what === 'backup') console.log(print([await backupRow(10000)]));
if (!what || what === 'search') console.log(print(await catalogueRows(100000)));
process.exit(0);
