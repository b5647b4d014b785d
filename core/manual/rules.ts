/**
 * The rules of the language, one by one: what every formula means, for good. The manual prints them; a test of the
 * same name holds each (`*.proofs.test.ts`).
 */
export interface RuleSection {
  readonly title: string
  readonly rules: Readonly<Record<string, string>>
}

export const RULES = {
  writing: {
    title: 'Writing',
    rules: {
      comments: 'Everything after `//` up to the end of the line is a comment; a line break counts as a space.',
      signs: '`×` and `·` mean `*`, `÷` means `/`, `−` and `–` mean `-`; formulas are stored with the plain signs.',
      letsOnce: 'Two `let`s with the same name are an error.',
      lets: '`let name = …;` names a value for what follows it in the formula.',
      onBindsLoosest: '`on` binds loosest: the clock applies to the whole formula to its left.',
      ifInBrackets: 'An `if` within a sum or product needs brackets.',
      oneComparison: 'A comparison has two sides: `a < b < c` is an error; write `a < b and b < c`.',
      orAndNot: '`not` binds before `and`, `and` before `or`.',
      powers: '`^` binds before the sign and from the right: `-2 ^ 2` is −4, and `2 ^ 3 ^ 2` is 512.',
      arguments: 'Named arguments can come in any order; unnamed ones fill the declared order.',
      argumentWords: 'Words that are arguments, such as easings, are looked up in their argument’s own list first.',
    },
  },
  numbers: {
    title: 'Numbers and names',
    rules: {
      exponent: 'An exponent is read only when digits follow the e: `1e3` is a thousand.',
      unitIsWhole: 'The whole adjoining word is the unit: `2sine` is an unknown unit, not two sines.',
      unitsAsTyped: '`°`, `turns`, `sec`, `frames`, `laps` and the like are accepted and rewritten as the unit.',
      rates: '`/s /ms /min /f /lap` belong to a number with a unit, but not before a name, so `90deg/speed` divides.',
      onePer: 'After anything else, `/` and a bare time word means one of it: `3/lap`, `12/s`, `time/lap`.',
      letters: 'Names can use letters of any script, digits and `_`; capitals and full-width forms make no difference.',
      backquotes: 'Names with spaces go in backquotes.',
      ownNames: 'Every name in a piece is unique. Any name is allowed, even a word of the formula language.',
      wordNames:
        'A name that is also a word of the language means your part before `.` and `[` and in backquotes, and the word everywhere else.',
    },
  },
  kinds: {
    title: 'Kinds',
    rules: {
      physics: 'Units multiply and divide as in physics and are checked through the whole formula.',
      bareInPlace: 'A number alone where a value is expected takes the unit of the driven property.',
      bareNotThroughProducts: 'Never through `*`, `/`, `let` or other functions: there a number is a plain number.',
      bothKinds: 'A value of the wrong kind is an error that names both kinds, with a fix where there is one.',
      timesCarryUnits: 'Times, frequencies and rates always carry a unit.',
      zeroFits: '0 fits any kind.',
      share: '`%` is a plain share: 50% is 0.5. Scale, opacity and dials in % are factors.',
      switches: 'A switch dial is a condition on its own: `if lights then 1 else 0`.',
      bareShare: 'For a share, a bare number above 1 gets a warning, with `%` as the fix: 50 would be 5,000 %.',
      anglesForSin: '`sin(30)` and `sin(time)` are errors: they need an angle.',
      roundTo: '`round floor ceil fract` need a plain value; `round` accepts any kind with `to:`.',
    },
  },
  values: {
    title: 'What formulas can read',
    rules: {
      time: '`time` is in seconds, on the current clock, `frame` a plain number, `fps` a frequency, `frameTime` a time.',
      lap: '`lapProgress` goes from 0 to 1, `lapIndex` counts laps, `lapLength` is a time.',
      span: '`spanStart` and `spanEnd` are the part’s first and last moment, or the lap’s if it has no span.',
      stretch: '`stretchStart` and `stretchEnd` are those of the marked stretch.',
      base: '`base` is the property’s set value: a number or keyframes.',
      index: '`index` counts the innermost copies from 0, `count` is how many there are.',
      along: '`along` is index ÷ count in a ring or around a closed path, index ÷ (count − 1) in a row or open path.',
      rows: '`row` and `rows` count the rows of a grid.',
      columns: '`column` and `columns` count the columns of a grid.',
      letters: '`word` and `line` count the words and lines of a text with one letter per copy.',
      homes: '`homeX homeY homeAngle` are where the layout puts this copy, before its own x and y.',
      stage: '`stageWidth` and `stageHeight` are those of the stage.',
      places:
        '`part.stageX` and `stageY` are where a part’s pivot is on the stage, `part.stageX(40px, 0px)` a point on it.',
      layers: '`layer`, `layers` and `depth` (0 to 1) count layers, separately from copies side by side.',
      outer: 'Outer copies are read as `parent.index` and so on.',
      parents: '`parent.parent.rotation` is a property of the parent’s parent, and so on.',
      dialsAndSignals: 'A dial, a signal (a named formula) or a curve is read by its name.',
      properties: '`part.property` reads a property, `part[2].property` that of one copy: a constant or `index ± k`.',
      own: '`own.` is this part or copy, `parent.` its parent, `before.` the copy before; for the first copy, `base`.',
      settings: 'Fixed settings such as `crown.teeth` are read the same way.',
      guarded: 'An index out of range is an error unless an `if` rules it out.',
    },
  },
  sources: {
    title: 'Sources',
    rules: {
      order: 'Sources take `freq, amp, offset, phase` in this order; amp is 1 by default.',
      eitherForm: '`freq` or `every`, `amp` and `offset` or `low` and `high`: mixing the two is an error.',
      phaseIsEarlier: 'A positive phase is earlier.',
      noiseWithin: 'Noise never leaves ±amp.',
      noiseApart: 'Copies of noise never all cross 0 together: each seed and octave is shifted by part of a cell.',
      noiseOverSpace: 'With `at:` noise is a landscape over space that doesn’t change over time.',
      noiseField: 'With `across:` it has a second direction, with `freq` it moves, with `cell:` places are lengths.',
      noiseOneField: 'All copies share one landscape.',
      octavesSwing: 'Noise with several octaves has the same range as noise with one, but steeper slopes.',
      lapNoiseMoves: 'Noise per lap always moves noticeably, however few cells it has.',
      randomFixed: '`random` without a rate is always the same value; with a rate it changes that often.',
      rampAfter: 'After its end a ramp holds, repeats or mirrors; before its start it holds `from`.',
      curveAfter: 'After its last point a curve holds, repeats, mirrors, or carries on from its end value.',
      envelopeFits:
        'An envelope has fixed lengths, or fits the lap, the span, the stretch, or the time from mark to mark.',
      channelsTogether: 'All channels of a curve share its length and time axis.',
      curveEasing: 'A curve can be used as an easing: from its first point at share 0 to its last at 1.',
      marksCounted: '`count(cue)` is the number of marks so far, `until(cue)` the time until the next.',
      hitOnMark: '`play` lands the hit point of a curve on the mark; its run-up comes before.',
      overlap: 'A new gesture cuts the one under way, or is added to it.',
      noMark:
        'Before the first mark `play` has its first value, `since` is below 0; without marks the set value is used.',
      liveMarks: 'A mark tapped live is placed ahead by the longest lead, and is a mark like any other.',
    },
  },
  time: {
    title: 'Which time a formula sees',
    rules: {
      clockForSources: 'Time names, sources, curves and keyframes read the current clock.',
      linksOwnClock: 'Links, signals and dials are read under their own clock: linked parts are slowed once.',
      onNeedsTime: '`x on clock` is an error when x contains only links.',
      dialClock: 'A dial may set the pace of a clock; turning it doesn’t make anything on that clock jump.',
      workedOut: 'Long sums are calculated bit by bit, with a message; meanwhile the set value is used.',
      delays: '`delay`, `hold` and `average` shift the moment, links included; `at` sets it, on the piece’s clock.',
      rateRightSided: '`rateOf` looks ahead from the moment, so that a jump just before isn’t seen.',
      averageTrails: '`average` covers the time just before the moment.',
      negativeTimes:
        'Everything also works before time 0: repeats and laps continue backwards, `accumulate` adds up backwards.',
      anyOrder: 'A value is the same at any time, in any order: a day, a year, backwards.',
      paceAddedUp: 'A varying pace is added up from time 0.',
      timesVarying: '`time` multiplied by something that varies gets a warning, with `accumulate` as the fix.',
      exactForEver:
        'What grows steadily with time stays exact through constant delays, clocks, comparisons, `floor` and `mod`.',
      fromTheRight: 'A frame exactly on a jump always takes the value after it.',
      perLap: 'A whole number of cycles per lap loops; noise and random then wrap around. `0.375Hz` never does.',
      notFinite: 'An infinite or undefined value is replaced by the set value.',
      limits: 'A formula can have up to 2,000 characters and be nested 64 deep; beyond that, a message says so.',
    },
  },
  chance: {
    title: 'Chance',
    rules: {
      ownSeed: 'Each property, each copy and each place in the text has its own random values.',
      seedKept: 'Renaming, undo, takes and copying the piece keep them; copying a part makes new ones.',
      sharedSeed: 'An explicit `seed:` uses that number alone, so it is shared.',
      signalShares: 'A signal has no index, so everything that reads it shares its random values.',
    },
  },
  tuning: {
    title: 'Changing numbers, dials and laps while playing',
    rules: {
      numberIntoPhase:
        'Changing a number that sets a pace keeps every value; the difference goes into `phase:`, which is added if needed.',
      numberIntoSum: 'Next to `time` it goes into one constant, merged with an existing one, to 12 decimals.',
      stepsKept: 'Rounding never skips or repeats a step.',
      carried: 'If the pace depends on the index, so does the correction.',
      saysJump: 'If a value must jump, a message says so.',
      rampLength: 'The length of a ramp that repeats or mirrors is a pace too; its start is moved.',
      dialSlips: 'A dial doesn’t change any text: the piece keeps an offset for each pace made of dials.',
      clockOffset:
        'A clock’s rate moves its offset so that progress stays; a lap’s length moves its start only with Keep lap position, to a whole frame.',
      settle: '*Reset tuning offsets* clears those offsets.',
      switchedOff: 'You can turn it off; then values jump.',
    },
  },
  known: {
    title: 'What Open Tide tells you',
    rules: {
      period: 'Its period is exact, *never*, or *practically never* (over a day).',
      bounds: 'Its bounds hold over all time, and are tighter where a name is read twice.',
      jumps: 'Its jumps: when, from what to what, with a fix where there is one.',
      closes:
        'Whether it loops in the lap: yes, by symmetry, only later (settles or loops after a moment), no with the gap, or not proven.',
      links: 'What it reads and what reads it.',
      cost: 'How many operations a value takes.',
      promises: 'A promise such as *stays above 15px/s* is proved by bounds, or broken at a moment.',
      cyclesNamed: 'A circle of links is found while you edit and named in full; `delay` doesn’t break one.',
      ties: 'A two-way link isn’t a circle: it’s one value shown on two properties, and only one of them can be driven.',
      lastGood: 'While a formula has an error, the previous one keeps running, and a message says so.',
      goneIsBase: 'When something it reads is deleted, the property uses `base`, and a message says so.',
      everyCopy: 'Everything holds for every copy: the widest bounds, the worst verdict, and which copy it is.',
      fixesRun: 'Every fix removes its error; notation from elsewhere (`&&`, `?:`, `lerp`) is translated too.',
      errorsHaveAPlace:
        'Every error is marked in the text, explained in one sentence and, where possible, comes with a fix.',
    },
  },
  parts: {
    title: 'Parts',
    rules: {
      up: 'y points up, and positive turns are anticlockwise.',
      scaleBoth: '`scale` sets x and y together; each axis can also be driven alone.',
      hueRound: 'A hue wraps around at 360°.',
      lineShares: '`lineStart` and `lineEnd` trim the line along its outline.',
      symmetry: 'A part that looks the same n times in a turn loops after a turn ÷ n.',
      engage: '`engage` rotates a gear against another by their teeth and positions, also in a rotated group.',
      floats:
        '`basin.height(x, z)` is how high above its pivot a wave surface is at a place: half its height and its waves, which never exceed its swell; it loops.',
      numbersAsText: 'Text shows its words, or its `value` with decimals, prefix and suffix, or one letter per copy.',
      gradients:
        'A fill can blend to another colour between two stops; its gradient moves with the part or stays fixed to the stage.',
      traces: 'A trace is the path of a point; once placed, its points never move.',
      particles: 'An emitter’s particles are known at any moment; they only reverse when you allow it.',
      nearer: 'In depth, nearer parts cover farther ones, whatever their order in the list.',
      steps: 'A part is extruded, scaled, rotated and moved in this order, or in another you choose.',
      foam: '`basin.foam(x, z)` is how much foam lies there, from 0 to 1; it loops like the water.',
      drawnWithin: 'A value outside the range that can be drawn is drawn as the nearest that can.',
    },
  },
} as const satisfies Readonly<Record<string, RuleSection>>

export type RuleId = {
  [S in keyof typeof RULES]: `${S}.${Extract<keyof (typeof RULES)[S]['rules'], string>}`
}[keyof typeof RULES]
