import type { Answer, Request } from './messages';
import { Scene } from './scene';

const scope = globalThis as unknown as {
  postMessage(m: Answer): void;
  onmessage: ((e: MessageEvent<Request>) => void) | null;
};
/** Each with how many things it was told. */
const scenes = new Map<number, { scene: Scene; heard: number }>();

function tell(id: number): void {
  const known = scenes.get(id);
  if (known) scope.postMessage({ id, type: 'drawn', heard: known.heard });
}

function heed(request: Request): void {
  const { id } = request;
  if (request.type === 'open') {
    const { canvas, palette, size } = request;
    return void scenes.set(id, { scene: new Scene(canvas, palette, size, () => tell(id)), heard: 0 });
  }
  const known = scenes.get(id);
  if (!known) return;
  const { scene } = known;
  if (request.type === 'tell') {
    known.heard++;
    (scene[request.name] as (...about: unknown[]) => void)(...request.about);
    if (scene.isDrawn) tell(id);
  }
  if (request.type === 'tap') {
    const faces = scene.facesAt(request.x, request.y);
    const at = faces?.[0]?.at ?? scene.seenAt(request.x, request.y);
    if (at) scope.postMessage({ id, type: 'tapped', at, faces });
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
