/** Whether an element is in sight or nearly so: what is far away need not be there in full, what is not seen not be drawn. */

/** Pixels beyond the edge of what is seen. */
const AHEAD = 300

type Tell = (is: boolean, height: number) => void
const watched = { near: new WeakMap<Element, Tell>(), seen: new WeakMap<Element, Tell>() }
type Reach = keyof typeof watched
const observers = new WeakMap<Element | Document, Record<Reach, IntersectionObserver>>()

/** What scrolls an element: a margin counts only about that, not about the window. */
function scrollerOf(element: Element): Element | Document {
  for (let at = element.parentElement; at; at = at.parentElement)
    if (/(auto|scroll)/.test(getComputedStyle(at).overflowY)) return at
  return document
}

function shared(root: Element | Document): Record<Reach, IntersectionObserver> {
  let known = observers.get(root)
  if (!known) {
    const make = (reach: Reach, rootMargin: string) =>
      new IntersectionObserver(
        entries => {
          for (const e of entries) watched[reach].get(e.target)?.(e.isIntersecting, e.boundingClientRect.height)
        },
        { root, rootMargin },
      )
    observers.set(root, (known = { near: make('near', `${AHEAD}px 0px`), seen: make('seen', '0px') }))
  }
  return known
}

/** @returns whether it is near, whether it is seen, and how tall it was when it was last far away, px */
export function useNear(element: Readonly<Ref<HTMLElement | null>>): {
  near: Ref<boolean>
  seen: Ref<boolean>
  tall: Ref<number>
} {
  const near = ref(false)
  const seen = ref(false)
  const tall = ref(0)
  let stop = () => {}
  onMounted(() => {
    const at = element.value
    if (!at) return
    watched.near.set(at, (is, height) => {
      if (!is && near.value) tall.value = height
      near.value = is
    })
    watched.seen.set(at, is => (seen.value = is))
    const observing = shared(scrollerOf(at))
    for (const o of [observing.near, observing.seen]) o.observe(at)
    stop = () => [observing.near, observing.seen].forEach(o => o.unobserve(at))
  })
  onBeforeUnmount(() => stop())
  return { near, seen, tall }
}
