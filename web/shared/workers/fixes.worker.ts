import './spoken.ts';
import { expose } from 'comlink';
import { fixesApi } from './fix-api.ts';

expose(fixesApi);
