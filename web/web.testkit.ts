import { parseRig, type Rig } from '#core/rig/index.ts';
import { boathouse } from '#demo/boathouse.ts';

export const demoRig = (): Rig => parseRig(JSON.parse(JSON.stringify(boathouse)));
