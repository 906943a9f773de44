#!/usr/bin/env node
import { builtCommand } from './built.js';

const { run } = await import(await builtCommand());
process.exitCode = await run(process.argv.slice(2));
