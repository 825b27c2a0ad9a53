import { Link, usePathname } from 'expo-router';
import { ReactNode } from 'react';
import { Pressable, View } from 'react-native';
import { SIZE, SPACE } from '../theme/theme';
import { usePalette, useWide } from '../theme/usePalette';
import { Icon, IconName } from '../ui/Icon';
import { Txt } from '../ui/Txt';
import { Line } from './Line';
import { Shortcuts } from './Shortcuts';

const PLACES: { href: '/' | '/tools' | '/recipes' | '/log' | '/shop'; label: string; icon: IconName }[] = [
  { href: '/', label: 'Jobs', icon: 'clipboard-text-outline' },
  { href: '/tools', label: 'Tools', icon: 'screw-flat-top' },
  { href: '/recipes', label: 'Recipes', icon: 'notebook-outline' },
  { href: '/log', label: 'Log', icon: 'book-open-page-variant-outline' },
  { href: '/shop', label: 'Shop', icon: 'warehouse' },
];

function Place({ href, label, icon, here, wide }: (typeof PLACES)[number] & { here: boolean; wide: boolean }) {
  const palette = usePalette();
  return (
    <Link href={href} asChild>
      <Pressable
        role="link"
        aria-label={label}
        aria-current={here ? 'page' : undefined}
        style={{
          flex: wide ? undefined : 1,
          minHeight: SIZE.touch + SPACE.m,
          alignItems: 'center',
          justifyContent: 'center',
          gap: 2,
          borderTopWidth: wide ? 0 : 3,
          borderLeftWidth: wide ? 3 : 0,
          borderColor: here ? palette.accent : 'transparent',
        }}
      >
        <Icon name={icon} size={24} color={here ? palette.accent : palette.quiet} />
        <Txt kind="small" bold={here} tone={here ? 'accent' : 'quiet'}>
          {label}
        </Txt>
      </Pressable>
    </Link>
  );
}

/** The frame around everything: a bar at the bottom on a phone, a slim rail on a wide screen; inside a job a phone gives its room to the work. */
export function Shell({ children }: { children: ReactNode }) {
  const palette = usePalette();
  const wide = useWide();
  const path = usePathname();
  const inJob = path.startsWith('/job/');
  const isAboutJobs = path === '/' || inJob || path.startsWith('/release');
  const bar = (
    <View
      role="navigation"
      aria-label="Places"
      style={{
        flexDirection: wide ? 'column' : 'row',
        width: wide ? SIZE.rail : undefined,
        paddingTop: wide ? SPACE.l : 0,
        gap: wide ? SPACE.s : 0,
        backgroundColor: palette.sheet,
        borderColor: palette.line,
        borderTopWidth: wide ? 0 : 1,
        borderRightWidth: wide ? 1 : 0,
      }}
    >
      {PLACES.map((p) => (
        <Place key={p.href} {...p} wide={wide} here={p.href === '/' ? isAboutJobs : path.startsWith(p.href)} />
      ))}
    </View>
  );
  return (
    <View style={{ flex: 1, flexDirection: wide ? 'row' : 'column', backgroundColor: palette.background }}>
      {wide && bar}
      <View role="main" style={{ flex: 1, minWidth: 0, minHeight: 0 }}>
        {children}
        <Line />
      </View>
      {!wide && !inJob && bar}
      <Shortcuts />
    </View>
  );
}
