import { expose } from 'comlink';
import { BackingEngine } from '../audio/backing.engine';

expose(new BackingEngine());
