import { useSyncExternalStore } from 'react';
import { Waiting, onWaiting, waiting } from './writes';

/** What waits to be sent from this device, the oldest first. */
export const useWaiting = (): Waiting[] => useSyncExternalStore(onWaiting, waiting, waiting);
