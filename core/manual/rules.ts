/**
 * The rules of the language, one by one: what every formula means, for good. The manual prints them; a test of the
 * same name holds each (`rules.test.ts`).
 */
export interface RuleSection {
  readonly title: string
  readonly rules: Readonly<Record<string, string>>
}

export const RULES = {
  writing: {
    title: 'Writing',
    rules: {
      comments: 'What stands behind `//` to the end of the line is a note; a line break is a space.',
      signs: '`×` and `·` mean `*`, `÷` means `/`, `−` and `–` mean `-`; a formula is kept as it is written here.',
      letsOnce: 'Two `let` of one name are an error.',
      lets: '`let name = …;` names a value for what follows it in the formula.',
      onBindsLoosest: '`on` binds loosest: the clock is for the whole formula to its left.',
      ifInBrackets: 'An `if` within a sum or product needs brackets.',
      oneComparison: 'A comparison has two sides: `a < b < c` is an error; write `a < b and b < c`.',
      orAndNot: '`not` binds before `and`, `and` before `or`.',
      powers: '`^` binds before the sign and from the right: `-2 ^ 2` is −4, and `2 ^ 3 ^ 2` is 512.',
      arguments: 'Arguments with a name stand in any order; those without fill the declared order.',
      argumentWords: 'Words that are arguments, such as easings, are looked up in their argument’s own list first.',
    },
  },
  numbers: {
    title: 'Numbers and names',
    rules: {
      exponent: 'An exponent is read only when digits follow the e: `1e3` is a thousand.',
      unitIsWhole: 'The whole adjoining word is the unit: `2sine` is an unknown unit, not two sines.',
      unitsAsTyped: '`°`, `turns`, `sec`, `frames`, `laps` and the like are accepted, and written as the unit.',
      rates: '`/s /ms /min /f /lap` join a number that has a unit; not before a name, so `90deg/speed` divides.',
      onePer: 'After anything else, `/` and a bare time word means one of it: `3/lap`, `12/s`, `time/lap`.',
      letters: 'Names can use letters of any script, digits and `_`; capitals and full-width forms make no difference.',
      backquotes: 'Names with spaces go in backquotes.',
      ownNames: 'Every name in a piece is unique. Any name is allowed, even a word of the language.',
      wordNames:
        'A name that is a word of the language is the thing before `.` and `[`, the word alone, and the thing in backquotes.',
    },
  },
  kinds: {
    title: 'Kinds',
    rules: {
      physics: 'Kinds multiply and divide as in physics and are checked over the whole formula and the property.',
      bareInPlace: 'A number alone in a value place takes the unit of the driven property.',
      bareNotThroughProducts: 'Never through `*`, `/`, `let` or other functions: there a number is a plain number.',
      bothKinds: 'A value of the wrong kind is an error that names both kinds, with a fix where there is one.',
      timesCarryUnits: 'Times, frequencies and rates always carry a unit.',
      zeroFits: '0 fits any kind.',
      share: '`%` is a plain share: 50% is 0.5. Scale, opacity and dials in % are factors.',
      switches: 'A switch dial is a condition by itself: `if lights then 1 else 0`.',
      bareShare: 'On a share, a bare number above 1 gets a note, with `%` as the fix: 50 would be 5,000 %.',
      anglesForSin: '`sin(30)` and `sin(time)` are errors: they need an angle.',
      roundTo: '`round floor ceil fract` need a plain value; `round` accepts any kind with `to:`.',
    },
  },
  values: {
    title: 'What formulas can read',
    rules: {
      time: '`time` is seconds on the clock in force, `frame` a plain number, `fps` a frequency, `frameTime` a time.',
      lap: '`lapProgress` goes from 0 to 1, `lapIndex` counts laps, `lapLength` is a time.',
      span: '`spanStart` and `spanEnd` are the part’s first and last moment, else the lap’s.',
      stretch: '`stretchStart` and `stretchEnd` are those of the marked stretch.',
      base: '`base` is the property’s set value: a number or keyframes.',
      index: '`index` counts the innermost copies from 0, `count` is how many there are.',
      along: '`along` is index ÷ count in a ring or around a closed path, index ÷ (count − 1) in a row or open path.',
      rows: '`row` and `rows` count the rows of a grid.',
      columns: '`column` and `columns` count the columns of a grid.',
      letters: '`word` and `line` count the words and lines that letters as copies stand in.',
      homes: '`homeX homeY homeAngle` are where the layout puts this copy, before its own x and y.',
      stage: '`stageWidth` and `stageHeight` are those of the stage.',
      places:
        '`part.stageX` and `stageY` are where a part’s pivot stands on the stage, `part.stageX(40px, 0px)` a point of it.',
      layers: '`layer`, `layers` and `depth` (0 to 1) count layers, separately from copies side by side.',
      outer: 'Outer copies are read as `parent.index` and so on.',
      parents: '`parent.parent.rotation` is a property of the parent’s parent, and so on.',
      dialsAndSignals: 'A dial, a signal (a named formula) or a curve is read by its name.',
      properties: '`part.property` reads a property, `part[2].property` that of one copy: a constant or `index ± k`.',
      own: '`own.` is this part or copy, `parent.` its parent, `before.` the copy before; for the first copy, `base`.',
      settings: 'Fixed settings such as `crown.teeth` are read the same way.',
      guarded: 'An index out of range is an error unless an `if` guards it.',
    },
  },
  sources: {
    title: 'Sources',
    rules: {
      order: 'Sources take `freq, amp, offset, phase` in this order; amp is a plain 1 unless given.',
      eitherForm: '`freq` or `every`, `amp` and `offset` or `low` and `high`: some of both is an error.',
      phaseIsEarlier: 'A positive phase is earlier.',
      noiseWithin: 'Noise never leaves ±amp.',
      noiseApart: 'Copies of noise never all cross 0 together: each seed and octave is shifted by part of a cell.',
      noiseOverSpace: 'With `at:` noise is a landscape over space and stands still in time.',
      noiseField: 'With `across:` it has a second direction, with `freq` it moves, with `cell:` places are lengths.',
      noiseOneField: 'A landscape is one for all copies.',
      octavesSwing: 'Noise with several octaves has the same range as noise with one, but steeper slopes.',
      lapNoiseMoves: 'Noise per lap is never nearly still, however few its cells.',
      randomFixed: '`random` without a rate is always the same value; with a rate it steps that often.',
      rampAfter: 'After its end a ramp holds, repeats or mirrors; before its start it holds `from`.',
      curveAfter: 'After its last point a curve holds, repeats, mirrors, or carries on from its end value.',
      envelopeFits: 'An envelope has set lengths, or is fitted to the lap, span, stretch, or from cue to cue.',
      channelsTogether: 'The channels of a curve last as long as the curve: they are on one time axis.',
      curveEasing: 'A curve can be used as an easing: from its first point at share 0 to its last at 1.',
      marksCounted: '`count(cue)` is the marks so far, `until(cue)` the time to the next.',
      hitOnMark: '`play` lands the hit point of a curve on the mark; what leads up to it comes before.',
      overlap: 'A new gesture cuts the one under way, or is added to it.',
      noMark: 'Before the first mark `play` has its first value, `since` is below 0; with no mark a value rests.',
      liveMarks: 'A live mark is placed ahead by the longest lead, and is a mark like any other.',
    },
  },
  time: {
    title: 'Which time a reading sees',
    rules: {
      clockForSources: 'Time names, sources, curves and keyframes read the clock in force.',
      linksOwnClock: 'Links, signals and dials are read under their own clock: linked parts are slowed once.',
      onNeedsTime: '`x on clock` is an error when x holds nothing but links.',
      dialClock: 'A dial may set the pace of a clock; turning it leaves what runs on it where it is.',
      workedOut: 'Long sums are calculated bit by bit, with a message; meanwhile the set value is used.',
      delays: '`delay`, `hold` and `average` move the moment, links included; `at` sets it, on the piece’s clock.',
      rateRightSided: '`rateOf` looks ahead from the moment, so that a jump just before isn’t seen.',
      averageTrails: '`average` covers the time just before the moment.',
      negativeTimes: 'Everything is defined below 0: repeats and laps by floor-modulo, `accumulate` backwards.',
      anyOrder: 'A value is the same at any time, in any order: a day, a year, backwards.',
      paceAddedUp: 'A pace that itself varies is added up from 0; it does not run away.',
      timesVarying: '`time` multiplied by something that varies draws a warning, with `accumulate` as the fix.',
      exactForEver:
        'What is affine in time stays exact through constant delays, clocks, comparisons, `floor` and `mod`.',
      fromTheRight: 'A frame that lies exactly on a jump takes the value from the right, always.',
      perLap: 'A whole number of cycles per lap loops; noise and random then wrap around. `0.375Hz` never does.',
      notFinite: 'A value that isn’t finite is replaced by the set value.',
      limits: 'A formula can have up to 2,000 characters and a depth of 64, and a limit is named.',
    },
  },
  chance: {
    title: 'Chance',
    rules: {
      ownSeed: 'Each property, each copy and each place in the text draws its own chance.',
      seedKept: 'It is kept by rename, undo, takes and copying the piece, and new on copying a part.',
      sharedSeed: 'An explicit `seed:` uses that number alone, so it is shared.',
      signalShares: 'A signal has no index: reading it shares its random.',
    },
  },
  tuning: {
    title: 'Changing numbers, dials and laps while playing',
    rules: {
      numberIntoPhase: 'A number that sets pace keeps every value; the difference goes into `phase:`, made if absent.',
      numberIntoSum: 'Beside `time` it goes into one constant, merged with one that is there, to 12 decimals.',
      stepsKept: 'Rounding falls towards the side that keeps a step.',
      carried: 'With a factor that depends on the index, the correction carries it too.',
      saysJump: 'If a value must jump, a message says so.',
      rampLength: 'The length of a ramp that repeats or mirrors is a pace, kept by its start.',
      dialSlips: 'A dial doesn’t change any text: the piece keeps an offset for each pace made of dials.',
      clockOffset:
        'A clock’s rate moves its offset so that progress stays; a lap’s length moves its start only with Keep lap position, to a whole frame.',
      settle: '*Reset tuning offsets* clears those offsets.',
      switchedOff: 'It can be turned off: then values jump.',
    },
  },
  known: {
    title: 'What Open Tide tells you',
    rules: {
      period: 'Its period is exact, *never*, or *practically never* (over a day).',
      bounds: 'Its bounds hold over all time, tighter where a name is read twice.',
      jumps: 'Its jumps: when, from what to what, with a fix where there is one.',
      closes:
        'Whether it loops in the lap: yes, by symmetry, only later (settles or loops after a moment), no with the gap, or not proven.',
      links: 'What it reads and what reads it.',
      cost: 'How many operations a value takes.',
      promises: 'A promise such as *stays above 15px/s* is proved by bounds, or broken at a moment.',
      cyclesNamed: 'A circle of links is found while you edit and named in full; `delay` doesn’t break one.',
      ties: 'A two-way link isn’t a circle: it is one value with two faces, and only one of them can be driven.',
      lastGood: 'A formula with an error leaves the last good one running and says so.',
      goneIsBase: 'When what it reads was deleted, the property holds `base` and says so.',
      everyCopy: 'Everything holds for every copy: the widest bounds, the worst verdict, and which copy has it.',
      fixesRun: 'A fix leaves no error; notation from elsewhere (`&&`, `?:`, `lerp`) is translated too.',
      errorsHaveAPlace: 'Every error has its place in the text, one sentence and, where there is one, a fix.',
    },
  },
  parts: {
    title: 'Parts',
    rules: {
      up: 'y points up, and positive turns are anticlockwise.',
      scaleBoth: '`scale` sets x and y together; each axis can be driven alone.',
      hueRound: 'A hue wraps around at 360°.',
      lineShares: '`lineStart` and `lineEnd` cut the line along its outline.',
      symmetry: 'A part that looks the same n times in a turn loops after a turn ÷ n.',
      engage:
        '`engage` turns a gear against another by teeth, and by phase from where both stand, also within a group that is turned.',
      floats:
        '`basin.height(x, z)` is how high above its pivot a wave surface stands at a place: half its height and its waves, which never exceed its swell; it loops.',
      numbersAsText: 'Text shows its words, or its `value` with decimals, prefix and suffix, or one letter per copy.',
      gradients:
        'A fill can blend to another colour between two stops; its gradient moves with the part or stays fixed to the stage.',
      traces: 'A trace is the path of a point; points that are placed never shift.',
      particles: 'An emitter’s particles are known at any moment; they only reverse when you allow it.',
      nearer: 'In depth, nearer parts cover farther ones, whatever their order in the list.',
      steps: 'A part is extruded, scaled, rotated and moved in this order, or in another you choose.',
      foam: '`basin.foam(x, z)` is how much foam lies there, from 0 to 1; it loops as the water does.',
      drawnWithin: 'A value beyond what can be drawn is drawn as the nearest.',
    },
  },
} as const satisfies Readonly<Record<string, RuleSection>>

export type RuleId = {
  [S in keyof typeof RULES]: `${S}.${Extract<keyof (typeof RULES)[S]['rules'], string>}`
}[keyof typeof RULES]
