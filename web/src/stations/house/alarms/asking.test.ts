import { afterEach, expect, it, vi } from 'vitest';

import { askToBeTold } from './asking';

afterEach(() => vi.unstubAllGlobals());

function browser(subscribe: (options: PushSubscriptionOptionsInit) => Promise<unknown>): void {
  vi.stubGlobal('PushManager', class {});
  vi.stubGlobal('navigator', {
    serviceWorker: { ready: Promise.resolve({ pushManager: { subscribe } }) },
  });
}

it('gives the browser the workshop’s key and the workshop what the browser answered', async () => {
  const subscribe = vi.fn(async () => ({ endpoint: 'https://push.test/1', keys: {} }));
  browser(subscribe);
  expect(await askToBeTold('-_8A')).toBe('{"endpoint":"https://push.test/1","keys":{}}');
  const asked = subscribe.mock.calls[0] as unknown as [{ applicationServerKey: Uint8Array }];
  expect([...asked[0].applicationServerKey]).toEqual([251, 255, 0]);
});

it('says nothing where the browser cannot, or its owner does not want to', async () => {
  vi.stubGlobal('navigator', {});
  expect(await askToBeTold('AAAA')).toBeNull();
  browser(async () => Promise.reject(new Error('denied')));
  expect(await askToBeTold('AAAA')).toBeNull();
});
