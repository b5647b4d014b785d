/** Ways of working at the quay: a task each, short, with formulas that run. */
import type { Example, Section } from './manual.ts'

const on = (part: string, property: string, text: string): Example => ({ part, property, text })

export const WORKING: readonly Section[] = [
  {
    title: 'Working: a first motion',
    says: [
      'Press *Drive…* beside a part, choose a property and what it should do: each choice shows the curve that it draws. The formula is yours from there; pull its numbers sideways while it plays. For two axes at once choose *and y*, alike or each with its own chance.',
      'Press the curve: the scope shows it large. A bead on a crest is its amplitude, a ring its phase, the bracket between two crests its period. *parts* shows the terms of a sum apart; a promise is a line that is pulled. What it was before a change stays as a dotted ghost until G takes it off.',
    ],
    examples: [on('Mount', 'y', 'base + sine(every: 2s, amp: 24px)')],
  },
  {
    title: 'Working: parts in the hand',
    says: [
      'Press a part on the stage and pull it where it shall be; with Shift straight across or up, with Alt a double of it, and it stays. It is drawn to the stage, to other parts and their pins; Ctrl lets it go. Squares round it size it from the side over against them, with Alt about its middle, with Shift as wide against as high as it is; the knob above turns it, with Shift in steps of 15°. A double press on a text goes into its words. Esc in the middle of a pull gives it up.',
      'The pin is where it turns and scales about. Pull it, or choose a place of it on the Part page: the part stays where it stands. A part that turns shows the circle that it sweeps, so that a wrong pin is seen at once; *path* shows its way through the coming lap, a dot a frame.',
      'A frame drawn on the ground, or Shift, takes several: they are moved, turned, sized, doubled, lined up and spread together. A group in hand is pulled by whatever it carries; a press alone takes what lies there. The wheel goes nearer, sideways or with Shift along, the middle button moves the view, *fit* shows all. With the keys: arrows move by a pixel, Shift ten, the view where nothing is chosen; Enter goes into a group, Esc out; Del takes away. What is locked in the list of parts the hand passes by.',
      'Threads lead from the part in hand to the parts that its formulas read, and from it to those that read it: a dot stands at what reads. On the Piece page *Guides* show the middle, the margins that are safe on any screen and guides of your own; *Rulers* lie along the stage, and a guide is pulled out of them and off the stage again; *Grid* rules it. Parts, guides and what the pen lays are drawn to all of these; Ctrl lets go.',
      'A gear that is dropped beside another is drawn to where their teeth meet, and runs with it from then on.',
    ],
    examples: [on('Idler', 'rotation', 'engage(pinion)')],
  },
  {
    title: 'Working: the pen, poses and chains',
    says: [
      'Choose *Path* and press on the stage: each press lays a point, pulled it is smooth, on the first point it closes. Points of a path in hand are pulled; a double press on the line adds one, on a point makes it smooth or a bend; N goes to the next, S makes it smooth, Del takes it away. They can be typed too.',
      'A path may have several poses: the same points in other places. The property `pose` goes from 0 to the last and round again, and half way between two it is half of each: `time * 0.5/s` steps through them for ever.',
      'Copies *in a chain* hang each on the tip of the one before, so that one turn bends all of them. Artwork from an SVG file becomes parts named by its ids; what cannot be taken is said.',
    ],
  },
  {
    title: 'Working: in depth',
    says: [
      'On the Piece page *In depth* puts a piece before an eye that stands so far off: z goes towards it, what is nearer looks larger and hides what is further, whatever lies above in the list. Parts in one plane are painted one over the other as when flat. Pull with the right button to look round, or Alt and an arrow key; *home* looks straight ahead again. Looking changes nothing of the piece.',
      'Every filled shape may have a `thickness`: a front, a back and sides, on which light falls from the left, above and before. `taper` makes its back smaller or larger. A part is thickened, scaled, turned and moved in this order; *made by* on the Part page puts a step before another, so that a block scaled after it is turned leans.',
      'Copies *in layers* of a filled shape are joined by a skin from layer to layer; *skin between layers* off leaves sheets. A layer lies behind the thickness of those before it.',
    ],
    examples: [on('Mount', 'rotationY', 'sine(every: 4s, amp: 30deg)')],
  },
  {
    title: 'Working: letters in depth',
    says: [
      'Add a text, let it show *a letter a copy* and its copies stand *as its words are set*: each letter stands where the font puts it, closer where two lean on one another, and turns about its own middle; the pin moves for all of them alike. Lines are as they were typed, or *a word a line*. Other words are set anew, and every formula stays.',
      'Ctrl G puts the text into a group; copies of the group *in layers* give it depth. Its formulas read `index` for the letter and `layer` or `depth` for how far back: give each loop an offset a letter and one a layer, and waves run through the letters and back along them. Whole cycles a lap (`freq: 3/lap`) close whatever the offsets.',
      'The Lap page finds letters that touch on the same layer.',
    ],
  },
  {
    title: 'Working: water, particles and traces',
    says: [
      'Waves are a body of water: seen flat from the side, in depth a field of so many squares. `swell` is how high they may rise, `crest` how sharp, `foam` how far down foam lies where they are steep. What stands where the basin does floats by `base + basin.height(x, z)`, which counts from the basin’s pivot; `basin.foam(x, z)` tells the foam there. Waves run on linear time and close at the lap. *Stirred by* noise over space instead of wind, they are ripples that run all ways, for any plane or cloth: their pace says how often a second they change.',
      'An emitter sends particles along its own x: so many a second, each for its life, set off on a point, a line, a ring or an area as large as `birthSize`; in depth they spread all round their way. `particleEnd` and `particleFade` say what has become of them at the end. They turn back only when asked. They are dots, or *look like* another part, which may be a hidden helper.',
      'A trace is the path of a point, in depth too. Its points are laid so many times a second, or where it bends by so much or has gone so far; once laid they stay. `tailWidth`, `tailFade` and `tailHue` say how its line is at its old end. *Keep as a path* makes a part of the line that is laid now: it stays, can be edited with the pen, and copies stand along it.',
      'Lines have dashes: `dashOffset` driven lets them run along; the ends of a line and of its dashes are flat, round or square, its joints pointed, round or cut off.',
    ],
    examples: [on('Mount', 'y', 'base + basin.height(own.x)')],
  },
  {
    title: 'Working: pictures and copies between pieces',
    says: [
      '*From files…*, or a drop on the stage, takes in SVG as parts and PNG, JPEG and WebP as pictures, several of one size at once: they lie one on another in the order of their names, as they were drawn. A picture is kept once, however many pieces show it.',
      'On the stage Ctrl C copies what is chosen with all that it carries, its formulas and the dials, signals, clocks, cues and curves that they read; Ctrl V puts it down, in another piece too. What has the same name there is read there.',
      'Press *colour* on the Part page for three sliders, each over all that it may be.',
    ],
  },
  {
    title: 'Working: giving out',
    says: [
      '*Give out* in the masthead, or on a card of the Harbour, makes a file of the piece: a film (WebM, MP4, GIF, or numbered PNGs in one packed file), a page that runs by itself, a moving SVG or CSS keyframes, shapes in depth (glTF), numbers of every drive (CSV, JSON), sound of one (WAV), a still, or a piece file with all its pictures. Whole laps go out as frames 0 … N − 1, never the one that would repeat the first; or the marked stretch, or from one moment to another. What will come out, whether every drive closes, and what the format cannot carry is said before, by name.',
      'Frames are drawn by the stage’s own renderer, at any size: a PNG is the stage to the pixel. PNG, GIF and moving SVG can go without the ground. Blur makes each frame the average of eight moments of its first half. Stop at any time: nothing half made is kept. What was begun in a window that was closed is offered again.',
      'The page that runs is one file that needs no server and runs for ever, exactly; the dials you tick stand under it. As a script module it is put on a page of your own, which plays it, seeks and turns its dials.',
    ],
  },
  {
    title: 'Working: handing over',
    says: [
      '*Hand over* in the masthead makes a link to a page with the stage and a few dials, for somebody who may tune but not break: say which dials, under which words, between which values, in which order, what may be taken away, and until when. The link is told once. It shows the piece as it stands now; what you change later reaches nobody by it.',
      'What is turned there is kept under the link, never in your piece. The list below shows it: *Take over* sets your dials so, as one step that undo takes back; *Withdraw* ends the link.',
    ],
  },
  {
    title: 'Working: patterns',
    says: [
      'A pattern is motion without its part: formulas with the dials, signals, curves, clocks and cues that they need. Choose parts and press P: a dozen patterns come with Open Tide, and move when they are pointed at. One with a single role is put on each chosen part; one with several asks which part takes which place. It is one step.',
      'The same panel saves what drives the chosen parts under a name. Times that were those of the part’s span, or of the lap, follow the span or lap of the part it is put on: `4s` at the end of a span becomes `spanEnd`. A name that is taken there gets a number. In the Harbour under *Patterns* they are renamed, given out as files, taken in and taken away.',
    ],
    examples: [on('Lantern', 'opacity', '100% * envelope(attack: 1s, release: 1s, over: span)')],
  },
  {
    title: 'Working: from tables, and to a device',
    says: [
      '*New…* → *from…* under *In common* reads CSV or JSON: columns become the channels of a curve, thinned as far as you allow, or one column the marks of a cue. Say which column tells the times, and in what.',
      '*Give out* → *Device* sends drives as OSC over UDP, 1 to 120 times a second: each with an address, in which `#` is the copy’s number, and the range it goes out in. It goes while the piece plays here, or the server sends by itself what is saved. `/dial/NAME` and `/cue/NAME` come in on a port of your choice. Try it on the *board*: lamps, needles and servo arms that come with Open Tide.',
    ],
  },
  {
    title: 'Working: the Harbour',
    says: [
      'A card moves when it is pointed at. Find pieces by a few letters, put them in order of change or title, tick several to copy, delete or put them into a folder. *Take in…*, or a drop, reads piece files. What was deleted lies under *Deleted lately* for 30 days.',
    ],
  },
  {
    title: 'Working: links and chains',
    says: [
      'On the *Links* page what drives stands above and what is driven at the side. One press where they cross links them, *Link…* any two properties, with or without a formula so far; press a pin for its ratio, what is added and how much later. *Turn round* lets the driven one drive, *both ways* lets moving either move the other, *cut* takes the link away and leaves the rest of the formula. An entry can be dragged by its name: onto a formula, where it is read by its name, onto a row of the board, or onto a part of the stage, which follows it then.',
      '*Chain…* makes parts follow one another in the order in which you press them, each by a share of the one before and some time later. Two dials tune all of it.',
    ],
    examples: [on('Carousel', 'rotation', 'delay(pinion.rotation, 0.2s) * 0.8')],
  },
  {
    title: 'Working: cues and gestures',
    says: [
      'C puts a mark on the cue in hand at the moment that is shown, also while it plays: a gesture with a run-up then begins at once, since the mark is placed ahead by its lead. Marks stand on the tape of time: drag them, Alt doubles them, or change them in the sentence of the cue. *again every* repeats them for ever. A mark that is dragged is drawn to other marks and to where the formula leaps that was in hand; Ctrl lets it go.',
      'A drawn curve is played with its hit point on each mark. Take it in hand and its points stand in the scope: a double press adds one, Shift takes several, *draw* lets you draw it freehand. From one point to the next it goes smoothly, straight, in a step, or by any easing, chosen by its picture. Channels share one axis of time.',
    ],
    examples: [on('Mallet', 'rotation', 'play(swing, blow, channel: arm)')],
  },
  {
    title: 'Working: clocks and stepped time',
    says: [
      'Under *In common*, *New…* makes a clock. Its sentence says how it runs: so many times as fast, to and fro, beginning again, along a curve, and whether it is held at so many steps a second. Whatever is written `on` it follows; a clock that is tuned while it plays goes on from where it is. *begin again* on its strip starts it anew at that moment, at each press; the presses are the marks of a cue.',
    ],
    examples: [on('Carousel', 'rotation', 'hold(time * 45deg/s, 6Hz)')],
  },
  {
    title: 'Working: hand keys and on top of them',
    says: [
      'K puts a hand key on the property in hand at the moment that is shown; after that a number typed on the Part page sets it there. `base` reads what is set by hand, so `base + …` moves on top. *hand keys* in the scope shows them as points, with what comes after the last: hold, repeat, mirrored, carry on.',
    ],
    examples: [on('Mount', 'y', 'base + noise(freq: 1Hz, amp: 6px)')],
  },
  {
    title: 'Working: leaving out',
    says: [
      'The formula in hand has a small ring before each term of its sum, or each factor of its product. A press leaves the term out, struck through in the text as a note of its own line; the next press brings it back. Alt B does the same to the term at the caret. What is selected of a formula is told as a number beside the scope.',
      'A drive is switched off in its menu, one part is looked at alone with A. Nothing of it is deleted.',
    ],
    examples: [on('Mount', 'y', 'base\n// + noise(freq: 1Hz, amp: 6px)\n+ sine(every: 2s, amp: 24px)')],
  },
  {
    title: 'Working: takes',
    says: [
      'T keeps the formula in hand as a take. Change it, and press a take to have that one back while it plays; what ran and was no take yet is kept by itself. Y goes to the take before. F2 names a take, Del takes it away.',
      '*side by side* lets the takes move beside what runs on the stage, at the same moment; *takes* in the scope lays their curves over it.',
    ],
    examples: [on('Mount', 'scale', '100% + sine(every: 2s, amp: 9%)')],
  },
  {
    title: 'Working: the lap',
    says: [
      'The lap is the stretch of time after which a loop comes round. Its page says of every drive whether it closes and why not, with numbers that would close it: each was tried before it is offered. The shortest lap that closes all is one press away. Frames are said before the lap is changed; frames 0 to N − 1 go out.',
      '*Across the seam* shows the last and the first frame side by side, and plays to and fro over it. *look through the lap* finds parts that leave the stage, and copies and letters that overlap at some frame, and goes there.',
    ],
    examples: [on('Carousel', 'rotation', 'noise(freq: 8/lap, amp: 20deg)')],
  },
  {
    title: 'Working: dials and giving to others',
    says: [
      'Alt D makes a dial out of the number at the caret. A dial may be a number, a whole number, a switch, a choice of names (read as 0, 1, 2 …) or a moment, which also stands on the tape of time and is pulled there; it can be locked, hidden, reset, put elsewhere by its name, and says who reads it. A signal can be read among the dials.',
      '*Give to others…* on an entry puts its formula on other parts in one step: the same, following the original, later, larger or faster from one to the next, by a step or by chance. What the first three will say is shown.',
    ],
    examples: [on('Flag', 'rotation', 'sine(every: 2s, amp: 9deg, phase: index * 40deg)')],
  },
]
