#!/usr/bin/env node
import { readFileSync } from 'node:fs';
import { answerOf } from './ask';

const { code, text } = await answerOf(process.argv.slice(2), (name) =>
  readFileSync(name === '-' ? 0 : name),
);
(code === 0 ? process.stdout : process.stderr).write(`${text}\n`);
process.exitCode = code;
