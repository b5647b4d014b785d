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
      unitsAsTyped: '`°`, `turns`, `sec`, `frames`, `laps` and the like are taken, and written as the unit.',
      rates: '`/s /ms /min /f /lap` join a number that has a unit; not before a name, so `90deg/speed` divides.',
      onePer: 'Behind anything else `/` and a bare time word means one of it: `3/lap`, `12/s`, `time/lap`.',
      letters: 'A name has letters of any script, digits and `_`, and is the same in capitals and in its wide forms.',
      backquotes: 'A name with spaces stands in backquotes.',
      ownNames: 'No two things of a piece have one name; any name is allowed, also that of a word of the language.',
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
      bothKinds: 'What has another kind than is wanted is an error that names both, with a fix where there is one.',
      timesCarryUnits: 'Times, frequencies and rates always carry a unit.',
      zeroFits: '0 fits any kind.',
      share: '`%` is a plain share: 50% is 0.5. Scale, opacity and dials in % are factors.',
      switches: 'A dial that is a switch is a condition by itself: `if lights then 1 else 0`.',
      bareShare: 'On a share a bare number above 1 says what it means, with `%` as the fix: 50 is 5,000 % there.',
      anglesForSin: '`sin(30)` and `sin(time)` are errors: an angle is wanted.',
      roundTo: '`round floor ceil fract` want a plain value; `round` takes any with `to:`.',
    },
  },
  values: {
    title: 'What is there to read',
    rules: {
      time: '`time` is seconds on the clock in force, `frame` a plain number, `fps` a frequency, `frameTime` a time.',
      lap: '`lapProgress` goes from 0 to 1, `lapIndex` counts laps, `lapLength` is a time.',
      span: '`spanStart` and `spanEnd` are the part’s first and last moment, else the lap’s.',
      stretch: '`stretchStart` and `stretchEnd` are those of the marked stretch.',
      base: '`base` is what the property holds by hand: a number or hand keys.',
      index: '`index` counts the innermost copies from 0, `count` says how many there are.',
      along: '`along` is index ÷ count in a ring or round a closed path, index ÷ (count − 1) in a row or open path.',
      rows: '`row` and `rows` count the rows of a grid.',
      columns: '`column` and `columns` count the columns of a grid.',
      letters: '`word` and `line` count the words and lines that letters as copies stand in.',
      homes: '`homeX homeY homeAngle` are where the layout puts this copy, before its own x and y.',
      stage: '`stageWidth` and `stageHeight` are those of the stage.',
      places:
        '`part.stageX` and `stageY` are where a part’s pivot stands on the stage, `part.stageX(40px, 0px)` a point of it.',
      layers: '`layer`, `layers` and `depth` (0 to 1) count layers, apart from copies that stand beside each other.',
      outer: 'Copies further out are `parent.index` and its like.',
      parents: '`parent.parent.rotation` is a property of what carries what carries the part, and so on.',
      dialsAndSignals: 'A dial, a signal (a named formula) or a curve is read by its name.',
      properties: '`part.property` reads a property, `part[2].property` that of one copy: a constant or `index ± k`.',
      own: '`own.` is this part or copy, `parent.` what it hangs on, `before.` the copy before; for the first, `base`.',
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
      octavesSwing: 'Noise of several octaves swings as wide as one of one: its slopes are harder.',
      lapNoiseMoves: 'Noise per lap is never nearly still, however few its cells.',
      randomFixed: '`random` without a rate is one value for ever, with one a step that often.',
      rampAfter: 'After its end a ramp holds, repeats or mirrors; before its start it holds `from`.',
      curveAfter: 'After its last point a curve holds, repeats, mirrors, or carries on from its end value.',
      envelopeFits: 'An envelope is of set lengths, or fitted over the lap, span, stretch or from cue to cue.',
      channelsTogether: 'The channels of a curve last as long as the curve: they are on one time axis.',
      curveEasing: 'A curve may stand for an easing: from its first point at share 0 to its last at 1.',
      marksCounted: '`count(cue)` is the marks so far, `until(cue)` the time to the next.',
      hitOnMark: '`play` lands the hit point of a curve on the mark; what leads up to it comes before.',
      overlap: 'A new gesture cuts the one under way, or is added to it.',
      noMark: 'Before the first mark `play` has its first value, `since` is below 0; with no mark a value rests.',
      liveMarks: 'A live mark is placed at now plus the longest lead, and is a mark like any other.',
    },
  },
  time: {
    title: 'Which time a reading sees',
    rules: {
      clockForSources: 'Time names, sources, curves and hand keys read the clock in force.',
      linksOwnClock: 'Links, signals and dials are read under their own clock: linked parts are slowed once.',
      onNeedsTime: '`x on clock` is an error when x holds nothing but links.',
      dialClock: 'A dial may set the pace of a clock; turning it leaves what runs on it where it is.',
      workedOut: 'What takes long to add up is worked out bit by bit and said to be; it is never no number.',
      delays: '`delay`, `hold` and `average` move the moment, links included; `at` sets it, on the piece’s clock.',
      rateRightSided: '`rateOf` looks ahead from the moment, so that a leap behind is not seen.',
      averageTrails: '`average` is over the time just gone by.',
      negativeTimes: 'All is defined below 0: repeats and laps by floor-modulo, `accumulate` backwards.',
      anyOrder: 'A value is the same at any time, in any order: a day, a year, backwards.',
      paceAddedUp: 'A pace that itself varies is added up from 0; it does not run away.',
      timesVarying: '`time` multiplied by something that varies draws a warning, with `accumulate` as the fix.',
      exactForEver:
        'What is affine in time stays exact through constant delays, clocks, comparisons, `floor` and `mod`.',
      fromTheRight: 'A frame that lies exactly on a jump takes the value from the right, always.',
      perLap:
        'A rate per lap closes at the lap if it is a whole number; noise and random then wrap. `0.375Hz` never does.',
      notFinite: 'A value that is not finite is the hand value instead.',
      limits: 'A formula has at most 2,000 characters and a depth of 64, and a limit is named.',
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
    title: 'Numbers, dials and laps changed while it plays',
    rules: {
      numberIntoPhase: 'A number that sets pace keeps every value; the difference goes into `phase:`, made if absent.',
      numberIntoSum: 'Beside `time` it goes into one constant, merged with one that is there, to 12 decimals.',
      stepsKept: 'Rounding falls towards the side that keeps a step.',
      carried: 'With a factor that depends on the index, the correction carries it too.',
      saysJump: 'Where a value must jump, it is said.',
      rampLength: 'The length of a ramp that repeats or mirrors is a pace, kept by its start.',
      dialSlips: 'A dial changes no text: the piece keeps a slip for each pace made of dials.',
      clockOffset:
        'A clock’s rate moves its offset so that progress stays; a lap’s length moves its start only with Keep lap position, to a whole frame.',
      settle: '*Settle from 0* clears what has gathered.',
      switchedOff: 'It can be switched off: then values jump.',
    },
  },
  known: {
    title: 'What is worked out',
    rules: {
      period: 'Its period is exact, *never*, or *practically never* (over a day).',
      bounds: 'Its bounds hold over all time, tighter where a name is read twice.',
      jumps: 'Its jumps are said: when, from what to what, with a fix where one is.',
      closes:
        'Whether it closes in the lap: yes, by symmetry, only later (settles or loops after a moment), no with the gap, or not proven.',
      links: 'What it reads and what reads it.',
      cost: 'How many operations a value takes.',
      promises: 'A promise such as *stays above 15px/s* is proved by bounds, or broken at a moment.',
      cyclesNamed: 'A circle of links is found when edited and named in full; `delay` never breaks one.',
      ties: 'A tie is no circle: one value with two faces, at most one of them driven.',
      lastGood: 'A formula with an error leaves the last good one running and says so.',
      goneIsBase: 'When what it reads was deleted, the property holds `base` and says so.',
      everyCopy: 'All is said of every copy: the widest bounds, the worst verdict, with the copy it is of.',
      fixesRun: 'A fix leaves no error; what is written as elsewhere (`&&`, `?:`, `lerp`) is mended too.',
      errorsHaveAPlace: 'Every error has its place in the text, one sentence and, where there is one, a fix.',
    },
  },
  parts: {
    title: 'Parts',
    rules: {
      up: 'y points up, and positive turns are anticlockwise.',
      scaleBoth: '`scale` sets x and y together; each axis can be driven alone.',
      hueRound: 'A hue goes round at 360°.',
      lineShares: '`lineStart` and `lineEnd` cut the line along its outline.',
      symmetry: 'A part that looks the same n times a turn closes at a turn ÷ n.',
      engage:
        '`engage` turns a gear against another by teeth, and by phase from where both stand, also within a group that is turned.',
      floats:
        '`basin.height(x, z)` is how high above its pivot a wave surface stands at a place: half its height and its waves, which never pass its swell; it closes.',
      numbersAsText: 'Text shows its words, or its `value` with decimals, prefix and suffix, or a letter a copy.',
      gradients:
        'A fill goes over to another colour between two stops; its gradient rides with the part, or stays on the stage.',
      traces: 'A trace is the path of a point; what is laid of it never shifts.',
      particles: 'An emitter’s particles are known at any moment; they turn back only when asked.',
      nearer: 'In depth what is nearer hides what is further, whatever is painted above it.',
      steps: 'A part is thickened, scaled, turned and moved in this order, or in another that is told.',
      foam: '`basin.foam(x, z)` is how much foam lies there, from 0 to 1; it closes as the water does.',
      drawnWithin: 'A value beyond what can be drawn is drawn as the nearest.',
    },
  },
} as const satisfies Readonly<Record<string, RuleSection>>

export type RuleId = {
  [S in keyof typeof RULES]: `${S}.${Extract<keyof (typeof RULES)[S]['rules'], string>}`
}[keyof typeof RULES]
