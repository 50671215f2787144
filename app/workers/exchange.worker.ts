import { expose } from 'comlink';
import { ExchangeEngine } from '../exchange/exchange.engine';

expose(new ExchangeEngine());
