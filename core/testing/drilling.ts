import type { DrillEvent } from '../drill';

/** What happens in a drill and needs nothing said beside its time; a try that ends with it gets a name by its time. */
export type Plain = Exclude<DrillEvent['kind'], 'isolate' | 'stage'>;

export function happening(kind: Plain, at: number, more: { readonly id?: string } = {}): DrillEvent {
  switch (kind) {
    case 'start':
    case 'counted-in':
      return { kind, at };
    case 'loop':
    case 'clean':
    case 'messy':
      return { kind, id: more.id ?? `try-${at}`, at };
    case 'pause':
    case 'stop':
    case 'stay':
    case 'down':
      return { kind };
  }
}
