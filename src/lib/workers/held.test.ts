import { describe, expect, test } from 'vitest';
import { createHeld } from './held';

/** Something that is given when it is let go, and remembers whether it was ended. */
function late(name: string, ended: string[]) {
  let give: (name: string) => void = () => undefined;
  let refuse: (error: Error) => void = () => undefined;
  const promise = new Promise<string>((resolve, reject) => {
    give = resolve;
    refuse = reject;
  });
  return {
    promise,
    give: () => give(name),
    refuse: () => refuse(new Error(`no ${name}`)),
    end: (given: string) => void ended.push(given),
  };
}

/** What holds two things that are given one after the other, begun. */
function two() {
  const ended: string[] = [];
  const held = createHeld<string>();
  const [one, other] = [late('one', ended), late('two', ended)];
  const begun = held.begin(async (own) => {
    own(await one.promise, one.end);
    return own(await other.promise, other.end);
  });
  return { ended, held, one, other, begun };
}

describe('what begins late and must be ended', () => {
  test('is ended in reverse order, once', async () => {
    const { ended, held, one, other, begun } = two();
    one.give();
    other.give();
    expect(await begun).toBe('two');
    expect(held.current).toBe('two');
    held.end();
    held.end();
    expect(ended).toEqual(['two', 'one']);
    expect(held.current).toBeNull();
  });

  test('ended before it is given, it is ended when it comes, and nothing more is begun', async () => {
    const ended: string[] = [];
    const held = createHeld<string>();
    const [one, two] = [late('one', ended), late('two', ended)];
    let asked = 0;
    const begun = held.begin(async (own) => {
      own(await one.promise, one.end);
      asked += 1;
      return own(await two.promise, two.end);
    });
    held.end();
    one.give();
    expect(await begun).toBeNull();
    expect(ended).toEqual(['one']);
    expect(asked).toBe(0);
  });

  test('ended between two that are given, both are ended', async () => {
    const { ended, held, one, other, begun } = two();
    one.give();
    await one.promise;
    await Promise.resolve();
    held.end();
    expect(ended).toEqual(['one']);
    other.give();
    expect(await begun).toBeNull();
    expect(ended).toEqual(['one', 'two']);
  });

  test('begun anew, the older is ended whenever it comes, and the newer stays', async () => {
    const ended: string[] = [];
    const held = createHeld<string>();
    const [one, two] = [late('one', ended), late('two', ended)];
    const first = held.begin(async (own) => own(await one.promise, one.end));
    const second = held.begin(async (own) => own(await two.promise, two.end));
    two.give();
    expect(await second).toBe('two');
    one.give();
    expect(await first).toBeNull();
    expect(ended).toEqual(['one']);
    expect(held.current).toBe('two');
  });

  test('refused half-way, what was given is ended, and the reason is told', async () => {
    const { ended, held, one, other, begun } = two();
    one.give();
    other.refuse();
    await expect(begun).rejects.toThrow('no two');
    expect(ended).toEqual(['one']);
    // What is refused after it was called off is nobody's trouble.
    const [three] = [late('three', ended)];
    const off = held.begin(async (own) => own(await three.promise, three.end));
    held.end();
    three.refuse();
    expect(await off).toBeNull();
  });
});
