
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { readDocument, writeDocument } from './core/file';
for (const f of readdirSync('demo')) { if(!f.endsWith('.json')) continue; const d = readDocument(execFileSync('git',['show','9df2fa4:demo/'+f].map(x=>x.replace('9df2fa4', process.argv[2]!)),{encoding:'utf8',maxBuffer:1e8})); if(!d.ok) throw new Error(JSON.stringify(d)); writeFileSync('demo/'+f, writeDocument(d.records, d.savedAt)); }
