import { useRouter } from 'expo-router';
import type { EditorProps, GoTo } from './types';

/** Where each input of a working is changed: beside the value it leads to, or in the shop. */
export function useGoTo({ job, operation, onField }: Pick<EditorProps, 'job' | 'operation' | 'onField'>): GoTo {
  const router = useRouter();
  const tool = job.tools.find((t) => t.id === operation.toolId);
  return (place) => {
    switch (place) {
      case 'tool':
        return () => onField({ at: 'tool' });
      case 'holder':
        return tool && (() => router.push(`/shop/holders/${tool.holder.id}`));
      case 'material':
        return () => router.push(`/shop/materials/${job.material.id}`);
      case 'machine':
        return () => router.push(`/shop/machines/${job.machine.id}`);
      case 'bite':
        return 'stepover' in operation.params ? () => onField({ at: 'param', key: 'stepover' }) : undefined;
      case 'layer':
        return 'layer' in operation.params ? () => onField({ at: 'param', key: 'layer' }) : undefined;
      case 'coolant':
        return () => onField({ at: 'coolant' });
      default:
        return undefined;
    }
  };
}
