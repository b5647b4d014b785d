/** The manual's tasks, chapter by chapter: each short, with formulas that run. */
import type { Example, Section } from './manual.ts'

const on = (part: string, property: string, text: string): Example => ({ part, property, text })

export const WORKING: readonly Section[] = [
  {
    title: 'First steps: your first motion',
    says: [
      'Press *Drive…* beside a part, choose a property, then choose what it should do. Each choice shows the curve it draws. The result is an ordinary formula: drag its numbers sideways while it plays. For two axes at once, choose *and y*, either alike or each with its own seed.',
      'Press the curve to see it large in the scope. The bead on a crest is the amplitude, the ring is the phase, and the bracket between two crests is the period: drag any of them. *parts* shows the terms of a sum separately. A promise is a line you can drag. The curve before your last change stays as a dotted ghost; G hides it.',
    ],
    examples: [on('Mount', 'y', 'base + sine(every: 2s, amp: 24px)')],
  },
  {
    title: 'First steps: your pieces in the harbour',
    says: [
      'Point at a card to see it move. Find pieces by a few letters, sort them by last change or title, and tick several to copy, delete or move them to a folder. *Import…*, or dropping files, reads piece files. Deleted pieces stay under *Recently deleted* for 30 days. On the Piece page, *Use this moment* chooses the picture on the card.',
    ],
  },
  {
    title: 'Formulas: bypass, turn off and solo',
    says: [
      'The selected formula has a small ring before each term of its sum, or each factor of its product. Press a ring to bypass that term: it is struck through in the text and kept as a comment. Press again to restore it. Alt B does the same to the term at the caret. Select part of a formula and the scope shows its value.',
      'Turn a drive off in its menu; press A to solo the selected part. Nothing is deleted.',
    ],
    examples: [on('Mount', 'y', 'base\n// + noise(freq: 1Hz, amp: 6px)\n+ sine(every: 2s, amp: 24px)')],
  },
  {
    title: 'Formulas: takes',
    says: [
      'T keeps the selected formula as a take. Change the formula, then press a take to get it back while playing; if what was running wasn’t a take yet, it is kept automatically. Y goes to the previous take. F2 renames a take, Del deletes it.',
      '*side by side* plays the takes next to each other on the stage, at the same moment; *takes* in the scope shows their curves together.',
    ],
    examples: [on('Mount', 'scale', '100% + sine(every: 2s, amp: 9%)')],
  },
  {
    title: 'Formulas: dials, and one formula for many parts',
    says: [
      'Alt D makes a dial from the number at the caret. A dial can be a number, a whole number, a switch, a choice of names (read as 0, 1, 2 …), or a moment, which also appears on the time tape where you can drag it. Dials can be locked, hidden, reset and reordered, and each says what uses it. A signal can be shown among the dials.',
      '*Apply to other properties…* on an entry puts its formula on other parts in one step: the same formula or one that follows the original; later, larger or faster from one part to the next; by a step or at random. The dialog previews the first three formulas.',
    ],
    examples: [on('Flag', 'rotation', 'sine(every: 2s, amp: 9deg, phase: index * 40deg)')],
  },
  {
    title: 'Time: cues and gestures',
    says: [
      'C marks the selected cue at the current moment, also while playing. A gesture with a run-up then starts at once, because the mark is placed ahead by its lead. Marks stand on the time tape: drag them, Alt-drag to duplicate, or change them in the cue’s sentence. *repeat every* repeats them forever. A dragged mark snaps to other marks and to where the selected formula jumps; hold Ctrl to turn that off.',
      'A drawn curve is played with its hit point on each mark. Select it and its points appear in the scope: double-click to add a point, Shift selects several, *draw* lets you draw it freehand. Between points it runs smoothly, straight, in a step, or by any easing you choose from pictures. All channels share one time axis.',
    ],
    examples: [on('Mallet', 'rotation', 'play(swing, blow, channel: arm)')],
  },
  {
    title: 'Time: clocks and stepped time',
    says: [
      'Under *In common*, *New…* makes a clock. Its sentence says how it runs: faster or slower, back and forth, restarting, or along a curve, and whether it is held a number of times a second. Anything written `on` that clock follows it. A clock you tune while playing carries on from where it is. *restart* on its strip starts it again at that moment, each time you press it; the presses are the marks of a cue.',
    ],
    examples: [on('Carousel', 'rotation', 'hold(time * 45deg/s, 6Hz)')],
  },
  {
    title: 'Time: keyframes, and motion on top of them',
    says: [
      'K sets a keyframe of the selected property at the current moment; after that, a number you type on the Part page sets a keyframe too. `base` reads the keyframes or the set value, so `base + …` moves on top of them. *keyframes* in the scope shows them as points, and what happens after the last one: hold, repeat, mirror or carry on.',
    ],
    examples: [on('Mount', 'y', 'base + noise(freq: 1Hz, amp: 6px)')],
  },
  {
    title: 'Time: the lap',
    says: [
      'The lap is how long your loop is. Its page says for every drive whether it loops and why not, and offers numbers that make it loop, each of them tried before it is offered. The shortest lap in which everything loops is one press away. You see the number of frames before you change the lap; frames 0 to N − 1 are exported.',
      '*Loop seam* shows the last and the first frame side by side and plays back and forth over it. *Check the lap* finds parts that leave the stage and copies and letters that overlap on any frame, and takes you there.',
    ],
    examples: [on('Carousel', 'rotation', 'noise(freq: 8/lap, amp: 20deg)')],
  },
  {
    title: 'Links and copies: patterns',
    says: [
      'A pattern is motion without its part: formulas with the dials, signals, curves, clocks and cues they need. Select parts and press P. A dozen patterns ship with Open Tide; point at one to see it move. A pattern with one role is applied to each selected part; one with several roles asks which part takes which. Applying is one step.',
      'The same dialog saves what drives the selected parts as a new pattern. Times that fit the part’s span or the lap adapt to the part you apply it to: `4s` at the end of a span becomes `spanEnd`. A name that is already taken gets a number. In the harbour, under *Patterns*, you can rename, export, import and delete them.',
    ],
    examples: [on('Lantern', 'opacity', '100% * envelope(attack: 1s, release: 1s, over: span)')],
  },
  {
    title: 'Links and copies: links and chains',
    picture: 'chain',
    says: [
      'On the *Links* page, columns drive rows. Press where two cross to link them, or press *Link…* to link any two properties, with or without a formula. Press a pin to set the ratio, the offset and the delay. *Reverse link* swaps driver and follower, *Two-way* lets either one move the other, *Unlink* removes the link and keeps the rest of the formula. You can also drag an entry by its name onto a formula, where it is read by name, onto a row of the board, or onto a part on the stage, which then follows it.',
      '*Chain…* makes parts follow one another in the order you choose them, each by a share of the one before and after a delay. Two dials tune the whole chain.',
    ],
    examples: [on('Carousel', 'rotation', 'delay(pinion.rotation, 0.2s) * 0.8')],
  },
  {
    title: 'Stage: select, move and size parts',
    picture: 'pivot',
    says: [
      'Press a part on the stage and drag it. Shift keeps it straight, Alt drags off a duplicate. Parts snap to the stage, to other parts and to their pivots; hold Ctrl to turn snapping off. Drag a square of its frame to size it (Alt sizes from the middle, Shift keeps the proportions) and the knob above to rotate it (Shift in steps of 15°). Double-click a text to edit its words. Esc cancels a drag.',
      'The pivot is the point a part rotates and scales around. Drag it, or choose a place for it on the Part page; the part stays where it is. A rotating part shows the circle it sweeps, so a misplaced pivot is easy to see. *motion path* under the stage shows the path through the coming lap, one dot per frame.',
      'Drag across the empty stage, or hold Shift, to select several parts. You can move, rotate, size, duplicate, align and distribute them together. Drag any child to move its selected group; press it without dragging to select the child. The mouse wheel zooms, sideways or with Shift it pans, and so does dragging with the middle button; *fit* shows everything. Arrow keys move the selection by one pixel (ten with Shift), or pan the view when nothing is selected. Enter goes into a group, Esc leaves it, Del deletes. Parts locked in the parts list can’t be selected on the stage.',
      'With *links* ticked under the stage, threads lead from the selected part to the parts its formulas read, and to the parts that read it; the dot marks the reader. On the Piece page, *Guides* shows the centre, safe margins and your own guides, *Rulers* adds rulers you can drag guides out of, and *Grid* draws a grid. Parts, guides and pen points snap to all of these; hold Ctrl to turn snapping off.',
      'Drop a gear beside another and it snaps to where their teeth meet, and engages from then on.',
      'The Part page lists what moves first, under *Driven*, then everything else in sections that you can fold. Drag a number sideways, type it, or step it with the arrow keys (Shift for larger steps, Alt for smaller). Press a label to write a formula. With several parts selected, the page lists what they have in common: a number you set there applies to all of them.',
    ],
    examples: [on('Idler', 'rotation', 'engage(pinion)')],
  },
  {
    title: 'Stage: draw paths, poses and chains',
    picture: 'poses',
    says: [
      'Choose *Path* and click on the stage: each click adds a point, dragging makes it smooth, and clicking the first point closes the path. Drag the points of a selected path to move them. Double-click the line to add a point, or a point to switch between smooth and corner. N selects the next point, S makes it smooth, Del deletes it. You can also type the points on the Part page.',
      'A path can have several poses: the same points in other places. The property `pose` goes from 0 to the last pose and back to the first; halfway between two poses the shape is half of each. `time * 0.5/s` steps through them forever.',
      'Copies *in a chain* each attach to the tip of the one before, so one rotation bends the whole chain. An SVG file becomes parts named after its ids; Open Tide tells you what it couldn’t import.',
    ],
  },
  {
    title: 'Stage: water, particles and traces',
    picture: 'water',
    says: [
      'Waves are a body of water: seen from the side when flat, a surface in depth. `swell` is how high the waves may rise, `crest` how sharp they are, and `foam` how far down foam lies on steep slopes. A part at the basin’s position floats with `base + basin.height(x, z)`, measured from the basin’s pivot; `basin.foam(x, z)` is the foam there. Waves always loop in the lap. Driven by noise instead of wind, they are ripples that run in all directions, for any plane or cloth; their pace is how often they change per second.',
      'An emitter sends out particles along its own x axis at a steady rate, each for its lifetime. They start from a point, a line, a ring or an area as large as `birthSize`; in depth they spread around their direction. `particleEnd` and `particleFade` set their size and opacity at the end of their life. They only reverse when *can reverse* is on. Particles are dots, or take their *particle shape* from another part, which can be a hidden helper.',
      'A trace is the path of a moving point, in depth too. Points are added at a steady rate, or wherever the path bends or has moved far enough; once added they stay. `tailWidth`, `tailFade` and `tailHue` style its old end. *Keep as a path* turns the current line into a path part that you can edit with the pen and place copies along.',
      'Lines can be dashed; drive `dashOffset` to make the dashes run. Line caps are flat, round or square, joins are pointed, round or bevelled.',
    ],
    examples: [on('Mount', 'y', 'base + basin.height(own.x)')],
  },
  {
    title: 'Stage: pictures, and copying between pieces',
    says: [
      'Press *From files…* or drop files on the stage: SVG becomes parts; PNG, JPEG and WebP become pictures. Several pictures of the same size are stacked in place, in the order of their names. A picture is stored once, however many pieces use it.',
      'On the stage, Ctrl C copies the selection with its children, its formulas, and the dials, signals, clocks, cues and curves they read. Ctrl V pastes it, in another piece too. Names that already exist there are used.',
      'Press *colour* on the Part page for three sliders, each of which shows every colour it can reach, or type a colour as the web writes it: `#c98f2c`, `teal`.',
    ],
  },
  {
    title: 'Depth: parts in space',
    picture: 'depth',
    says: [
      'On the Piece page, *In depth* views the piece through a camera at a distance you set. z points towards the viewer: nearer parts look larger and cover farther ones, whatever their order in the list. Parts in one plane are painted in order, as in a flat piece. To look around, drag with the right button or press Alt and an arrow key; *home* resets the view. Looking around doesn’t change the piece.',
      'Any filled shape can have a `thickness`: a front, a back and sides, lit from the upper left. `taper` makes the back smaller or larger. The transform order is extrude, scale, rotate, move; on the Part page you can move a step before another, so that a block scaled after it rotates is slanted.',
      'Copies *in layers* of a filled shape are joined into one solid. Turn *join layers* off to get separate sheets. Each layer starts behind the thickness of the ones before it.',
    ],
    examples: [on('Mount', 'rotationY', 'sine(every: 4s, amp: 30deg)')],
  },
  {
    title: 'Depth: letters',
    picture: 'letters',
    says: [
      'Add a text and let it show *one letter per copy*. Each letter stands where the font puts it, kerning included, and rotates around its own middle; moving the pivot moves it for all of them. Keep the lines as typed, or choose *one word per line*. When you change the words, every formula stays.',
      'Press Ctrl G to group the text; copies of the group *in layers* give it depth. Formulas read `index` for the letter, and `layer` or `depth` for how far back it is. Offset a loop per letter and per layer and waves run through the letters and back along them. Whole cycles per lap (`freq: 3/lap`) loop with any offsets.',
      'The Lap page finds letters that overlap on the same layer.',
    ],
  },
  {
    title: 'Export and sharing: export a file',
    says: [
      'Press *Export* in the masthead, or on a card in the harbour, to make a film (WebM, MP4, GIF or numbered PNGs), a live page, a moving SVG or CSS keyframes, a 3D scene (glTF), numbers of every drive (CSV, JSON), the sound of one drive (WAV), a still, or a piece file with all its pictures. Whole laps are exported as frames 0 to N − 1, so that the last frame leads into the first; you can also export the marked stretch, or from one moment to another. Before you start, the dialog says what will come out, whether every drive loops, and what the format can’t hold. Films are written to disk while they are made and can be an hour long. Press *Download* when the file is ready.',
      'Frames are drawn by the stage’s own renderer at any size: a PNG matches the stage pixel for pixel. PNG, GIF and moving SVG can have a transparent background. Blur averages eight moments of the first half of each frame. Press *Cancel* at any time; nothing unfinished is kept. If you close the window during an export, you can restart it later.',
      'A live page is one file that needs no server and runs forever, exactly. You choose what appears under it: nothing, a play button, or the play button and the dials you tick. A click on the stage plays and pauses. As a script module you can embed it in your own page, which can play it, seek and turn its dials.',
    ],
  },
  {
    title: 'Export and sharing: hand over a page',
    says: [
      '*Hand over* in the masthead creates a link to a page with the stage and a few dials, for someone who may tune but not break anything. Choose which dials they see, under which labels, between which values and in which order, which files they can download, and when the link expires. The link is shown once. The page shows the piece as it was when you created the link; later changes don’t appear there.',
      'What people change there is kept with the link and never touches your piece. It appears in the list of shared links: *Apply to my piece* sets your dials to those values, in one step you can undo; *Revoke* disables the link.',
    ],
  },
  {
    title: 'Export and sharing: tables and devices',
    says: [
      'Under *In common*, *New…* → *from…* reads CSV or JSON: columns become the channels of a curve, simplified as far as you allow, or one column becomes the marks of a cue. Say which column holds the times, and in which unit.',
      '*Export* → *Device* sends drives as OSC over UDP, 1 to 120 times a second. Each has an address, where `#` is the copy’s number, and an output range. Values are sent while you play the piece, or by the server on its own from the saved piece. `/dial/NAME` and `/cue/NAME` come in on a port you choose. Try it with the *board*, a page with lamps, needles and servo arms that ships with Open Tide.',
    ],
  },
]
