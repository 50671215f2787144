import { expose } from 'comlink';
import { readShelf } from '@core/formats';

expose({ read: readShelf });
