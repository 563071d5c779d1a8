/** The field's terms, each in one or two sentences; shown where they are met first. */
export const glossary = {
  end: 'A destination: an input that turns voltage into pitch, brightness, loudness or time.',
  source: 'What moves by itself or by hand: a slow oscillator, an envelope, a fader, a sequence.',
  attenuator: 'Shrinks a voltage towards 0 V. At full it passes all, at zero nothing.',
  attenuverter: 'Shrinks a voltage and can turn it over: left of noon it comes out flipped.',
  offset: 'Adds a steady voltage: the whole movement is lifted or lowered, its size stays.',
  bias: 'A steady voltage added inside a module, by its own knob.',
  unity: 'Passing a voltage at its own size, neither more nor less. For an amplifier: fully open.',
  normal:
    'What an input gets while nothing is plugged in: a steady voltage or another socket’s signal. A plug breaks it.',
  bound: 'What a voltage can never leave, whatever its sources do.',
  seen: 'What the simulated window reached. It lies within the bound.',
  rail: 'The supply’s limit. What would go beyond it is clipped.',
  slew: 'Smoothing: a voltage takes time to reach a new value. Also called lag or glide.',
  gate: 'A voltage that says on or off. It counts from a threshold on.',
  trigger: 'A short gate: only its rising edge counts.',
  bipolar: 'Going below and above 0 V. Unipolar voltages stay on one side.',
  'four-quadrant': 'Multiplies with the sign of both inputs. Two-quadrant: a control below 0 V only shuts.',
  loop: 'A path that leads back to its own start. It arrives one sample late.',
  dBu: 'Level against 0.775 V RMS. Line level is about +4 dBu; modular level is several times hotter.',
  mult: 'One voltage to several inputs. A passive one is loaded by each of them.',
  'sample and hold': 'Keeps the voltage of one moment until the next clock.',
  quantizer: 'Rounds a voltage to the nearest note of a scale.',
  mirrored: 'The other way round within the same range: high where the first is low.',
} as const satisfies Record<string, string>;

export type Word = keyof typeof glossary;
