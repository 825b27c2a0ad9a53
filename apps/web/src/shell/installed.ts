/** The copy of the app on this device: where the browser allows one it is kept by a service worker, and a newer one waits until it is asked for. */
import { useEffect, useState } from 'react';

/** A moment for the page itself before files are copied, and between two looks for a newer version, ms. */
const FIRST = 3000;
const LOOK = 3600_000;

/** Only what was exported is kept: it names what it is made of. */
const isExported = () => document.querySelector('meta[name=source]') !== null;
/** Whether a browser keeps an app from where this one comes: not over plain http. */
export const canKeep = (): boolean => window.isSecureContext && 'serviceWorker' in navigator;

/** Whether the copy is made: until then nothing opens without the server. */
export function useCopy(): boolean {
  const [isMade, setMade] = useState(false);
  useEffect(() => {
    if (!canKeep()) return;
    let isWanted = true;
    void navigator.serviceWorker.ready.then(() => isWanted && setMade(true));
    return () => void (isWanted = false);
  }, []);
  return isMade;
}

/** Calls back once a worker of a newer version waits. */
function onNewer(kept: ServiceWorkerRegistration, found: (worker: ServiceWorker) => void): void {
  const look = () => kept.waiting && navigator.serviceWorker.controller && found(kept.waiting);
  look();
  kept.addEventListener('updatefound', () => kept.installing?.addEventListener('statechange', look));
}

/**
 * Keeps the app on this device.
 * @returns what goes over to a newer version, once there is one
 */
export function useInstalled(): (() => void) | undefined {
  const [newer, setNewer] = useState<ServiceWorker>();
  useEffect(() => {
    if (!canKeep() || !isExported()) return;
    let looking: ReturnType<typeof setInterval>;
    const begin = async () => {
      const kept = await navigator.serviceWorker.register('/sw.js');
      onNewer(kept, setNewer);
      looking = setInterval(() => void kept.update().catch(() => undefined), LOOK);
    };
    const timer = setTimeout(() => void begin().catch(() => undefined), FIRST);
    return () => {
      clearTimeout(timer);
      clearInterval(looking);
    };
  }, []);
  if (!newer) return undefined;
  return () => {
    navigator.serviceWorker.addEventListener('controllerchange', () => window.location.reload(), { once: true });
    newer.postMessage('take over');
  };
}
