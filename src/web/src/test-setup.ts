import { cleanup, configure } from '@testing-library/react';
import { afterEach, beforeEach } from 'vitest';

// Every file draws into the same document.
configure({ asyncUtilTimeout: 30_000 });
beforeEach(() => localStorage.clear());
afterEach(cleanup);
