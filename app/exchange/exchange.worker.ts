import { expose } from 'comlink';
import { ExchangeEngine } from './exchange.engine';

expose(new ExchangeEngine());
