/** Whether an element is in sight or nearly so: what is far away need not be there in full. */

/** Pixels beyond the edge of what is seen. */
const AHEAD = 500

interface Watched {
  readonly tell: (near: boolean, height: number) => void
}
const watched = new WeakMap<Element, Watched>()
let observer: IntersectionObserver | null = null

const shared = (): IntersectionObserver =>
  (observer ??= new IntersectionObserver(
    entries => {
      for (const e of entries) watched.get(e.target)?.tell(e.isIntersecting, e.boundingClientRect.height)
    },
    { rootMargin: `${AHEAD}px 0px` },
  ))

/** @returns whether it is near, and how tall it was when it was last far away, px */
export function useNear(element: Readonly<Ref<HTMLElement | null>>): { near: Ref<boolean>; tall: Ref<number> } {
  const near = ref(false)
  const tall = ref(0)
  onMounted(() => {
    const at = element.value
    if (!at) return
    watched.set(at, {
      tell: (is, height) => {
        if (!is && near.value) tall.value = height
        near.value = is
      },
    })
    shared().observe(at)
  })
  onBeforeUnmount(() => {
    if (element.value) shared().unobserve(element.value)
  })
  return { near, tall }
}
