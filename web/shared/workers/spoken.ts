import '#words/core.ts';
import { speakAsHandedOn } from '#words/index.ts';

// The page hands its language on as the worker's name: what a worker says is said as the page says it.
speakAsHandedOn(self.name);
