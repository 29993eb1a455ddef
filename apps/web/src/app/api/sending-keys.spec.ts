import { firstValueFrom, NEVER, of, throwError } from 'rxjs';
import { SendingKeys } from './sending-keys';

describe('keys of sendings', () => {
  let keys: SendingKeys;
  let sent: string[];
  const entered = (key: string) => {
    sent.push(key);
    return of('entered');
  };
  const lost = (key: string) => {
    sent.push(key);
    return throwError(() => new Error('no answer'));
  };

  beforeEach(() => {
    keys = new SendingKeys();
    sent = [];
  });

  it('is the same again where the answer was lost', async () => {
    await expect(firstValueFrom(keys.once('job 1', lost))).rejects.toThrow('no answer');
    await firstValueFrom(keys.once('job 1', entered));
    expect(sent[0]).toHaveLength(36);
    expect(sent[1]).toBe(sent[0]);
  });

  it('is another once it is known to be entered, and for what was changed since', async () => {
    await firstValueFrom(keys.once('job 1', entered));
    await expect(firstValueFrom(keys.once('job 1', lost))).rejects.toThrow();
    await firstValueFrom(keys.once('job 2', entered));
    expect(new Set(sent).size).toBe(3);
  });

  it('is the same for two presses while no answer has come', () => {
    const waiting = (key: string) => {
      sent.push(key);
      return NEVER;
    };
    const both = [keys.once('job 1', waiting), keys.once('job 1', waiting)];
    // Nothing is sent before somebody listens.
    expect(sent).toEqual([]);
    for (const one of both) one.subscribe();
    expect(sent).toHaveLength(2);
    expect(sent[1]).toBe(sent[0]);
  });
});
