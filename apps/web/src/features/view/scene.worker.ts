import type { Answer, Request } from './messages';
import { Scene } from './scene';

const scope = globalThis as unknown as {
  postMessage(m: Answer): void;
  onmessage: ((e: MessageEvent<Request>) => void) | null;
};
const scenes = new Map<number, Scene>();

function heed(request: Request): void {
  const { id } = request;
  if (request.type === 'open') return void scenes.set(id, new Scene(request.canvas, request.palette, request.size));
  const scene = scenes.get(id);
  if (!scene) return;
  if (request.type === 'tell') (scene[request.name] as (...about: unknown[]) => void)(...request.about);
  if (request.type === 'tap') {
    const at = scene.seenAt(request.x, request.y);
    if (at) scope.postMessage({ id, type: 'tapped', at });
  }
  if (request.type === 'picture') void scene.picture().then((file) => scope.postMessage({ id, type: 'picture', file }));
  if (request.type === 'close') {
    scenes.delete(id);
    scene.dispose();
  }
}

scope.onmessage = ({ data }) => {
  try {
    heed(data);
  } catch (error) {
    scope.postMessage({ id: data.id, type: 'failed', message: error instanceof Error ? error.message : String(error) });
  }
};
