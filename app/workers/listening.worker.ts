import { expose } from 'comlink';
import { ListeningEngine } from '../listen/listening.engine';

expose(new ListeningEngine());
