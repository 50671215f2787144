import { expose } from 'comlink';
import { BackingEngine } from './backing.engine';

expose(new BackingEngine());
