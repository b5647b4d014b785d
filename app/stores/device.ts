/** Live values to a device: what goes out, and whether it does while the piece plays here; what comes in turns dials and taps cues. */
import { defineStore } from 'pinia'
import { setMarks } from '~~/core/acts/time-edits.ts'
import { DeviceAnswer, DeviceStatus } from '~~/core/piece/api.ts'
import { newDevice, type Device, type Incoming } from '~~/core/piece/device.ts'
import { useOpenPiece } from './open-piece.ts'
import { create, get, put } from '../services/request.ts'
import { useTuning } from '../commands/tuning.ts'

const SILENT: DeviceStatus = { sending: false, by: null, packets: 0, says: '' }
/** Milliseconds in which changes are gathered, and after which the moment is told again. */
const GATHER = 60
const AGAIN = 2000

export const useDevice = defineStore('device', () => {
  const store = useOpenPiece()
  const device = ref<Device>(newDevice())
  const status = shallowRef<DeviceStatus>(SILENT)
  const wrong = ref('')
  /** Whether values go out while the piece plays here. */
  const live = ref(false)
  /** Whether what is set is known here. */
  const known = ref(false)
  let stops: (() => void)[] = []
  const path = () => `/api/pieces/${store.id}/device`

  async function load(): Promise<void> {
    const answer = await get(path(), DeviceAnswer)
    if (!answer.ok) {
      wrong.value = answer.says
      return
    }
    device.value = answer.value.device
    status.value = answer.value.status
    known.value = true
  }

  /** What goes out, as it is set now. @returns whether it was kept */
  async function keep(): Promise<boolean> {
    const answer = await put(path(), device.value)
    wrong.value = answer.ok ? '' : answer.says
    return answer.ok
  }

  async function run(body: object): Promise<void> {
    const answer = await create(`${path()}/run`, DeviceStatus, body)
    wrong.value = answer.ok ? '' : answer.says
    if (answer.ok) status.value = answer.value
  }

  async function begin(): Promise<void> {
    end()
    if (!(await keep())) return
    live.value = true
    const player = store.player
    const tell = (whole: boolean) =>
      run({
        by: 'quay',
        seconds: player.now().seconds,
        pace: player.playing ? player.pace : 0,
        ...(whole && { document: store.piece }),
      })
    let timer = 0
    let changed = true
    const soon = () => (timer ||= window.setTimeout(now, GATHER))
    function now(): void {
      timer = 0
      void tell(changed).then(() => {
        // A server that was started anew, or took this window for closed, needs the whole piece again.
        if (live.value && !wrong.value && !status.value.sending) changed = true
      })
      changed = false
    }
    const again = window.setInterval(soon, AGAIN)
    let shown = NaN
    const heard = new EventSource(`${path()}/events`)
    heard.onmessage = e => take(JSON.parse(e.data as string) as Incoming)
    stops = [
      player.changed(soon),
      player.watch(({ moment, playing }) => {
        if (!playing && moment.seconds !== shown) soon()
        shown = moment.seconds
      }),
      watch(
        () => store.piece,
        () => {
          changed = true
          soon()
        },
      ),
      () => clearInterval(again),
      () => clearTimeout(timer),
      () => heard.close(),
    ]
    now()
  }

  function take(what: Incoming): void {
    const piece = store.piece
    if (!piece) return
    if (what.is === 'cue') {
      const cue = Object.entries(piece.cues).find(([, c]) => c.name === what.name)
      if (cue) store.act(setMarks(piece, cue[0], [...cue[1].marks, Number(store.player.now().seconds.toFixed(3))]))
      return
    }
    const dial = Object.entries(piece.dials).find(([, d]) => d.name === what.name)
    if (dial && !dial[1].locked)
      useTuning().dial(dial[0], Math.min(dial[1].high, Math.max(dial[1].low, what.value)), false)
  }

  function end(): void {
    live.value = false
    stops.forEach(stop => stop())
    stops = []
  }

  async function stop(): Promise<void> {
    end()
    await run({ by: 'none' })
  }

  /** The server sends by itself what is saved, also when no window is open. */
  async function alone(): Promise<void> {
    end()
    if (!(await keep()) || !(await store.flush())) return
    await run({ by: 'alone', seconds: store.player.now().seconds })
  }

  watch(
    () => store.id,
    () => {
      end()
      known.value = false
    },
  )
  return { device, status, wrong, live, known, load, keep, begin, stop, alone, end }
})
