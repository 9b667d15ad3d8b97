import { checkNode, ensureBuilt, ensureInstalled } from './steps.mjs';

checkNode();
ensureInstalled();
ensureBuilt({ quiet: process.argv.includes('--quiet') });
