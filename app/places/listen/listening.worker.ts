import { expose } from 'comlink';
import { ListeningEngine } from './listening.engine';

expose(new ListeningEngine());
