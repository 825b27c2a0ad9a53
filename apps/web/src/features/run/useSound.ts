import { useEffect, useRef } from 'react';
import type { MachineView } from '@tidypath/controller';

/** What is heard of a cut: teeth that pass, and a chatter over them. */
export interface Heard {
  /** Hz of the teeth, and of a chatter where there is one. */
  teeth: number;
  chatter: number;
  /** How loud each is, 0 to 1. */
  cut: number;
  scream: number;
}

/** Loudest of each: a chatter is heard over everything. */
const LOUD = { cut: 0.12, scream: 0.25 };
/** Vibration that screams as loud as it gets, mm. */
const SCREAMS = 0.05;
/** s it takes to follow what is shown. */
const FOLLOWS = 0.08;

/** What a machine sounds like now. @param flutes of the tool in its spindle */
export function heardOf({ state, load, vibration, chatter, rpm = 0 }: MachineView, flutes: number): Heard {
  const cuts = state === 'running' && load > 0;
  return {
    teeth: (rpm * flutes) / 60,
    chatter: chatter ?? 0,
    cut: cuts ? LOUD.cut * Math.min(1, 0.2 + load) : 0,
    scream: cuts && chatter !== undefined ? LOUD.scream * Math.min(1, vibration / SCREAMS) : 0,
  };
}

/** Two voices of the page. */
interface Voices {
  context: AudioContext;
  set: (heard: Heard) => void;
}

function voices(): Voices {
  const context = new AudioContext();
  const voice = (type: OscillatorType) => {
    const [tone, loud] = [context.createOscillator(), context.createGain()];
    tone.type = type;
    loud.gain.value = 0;
    tone.connect(loud).connect(context.destination);
    tone.start();
    return (hz: number, gain: number) => {
      const now = context.currentTime;
      if (hz > 0) tone.frequency.setTargetAtTime(hz, now, FOLLOWS);
      loud.gain.setTargetAtTime(gain, now, FOLLOWS);
    };
  };
  const [teeth, scream] = [voice('triangle'), voice('sawtooth')];
  return {
    context,
    set: (heard) => {
      teeth(heard.teeth, heard.cut);
      scream(heard.chatter, heard.scream);
    },
  };
}

/** Lets a cut be heard while it is asked for; all of it is in sight too. */
export function useSound(isOn: boolean, heard: Heard): void {
  const playing = useRef<Voices>(undefined);
  useEffect(() => {
    if (!isOn) return;
    const made = (playing.current = voices());
    return () => {
      playing.current = undefined;
      void made.context.close();
    };
  }, [isOn]);
  const { teeth, chatter, cut, scream } = heard;
  useEffect(() => playing.current?.set({ teeth, chatter, cut, scream }), [isOn, teeth, chatter, cut, scream]);
}
