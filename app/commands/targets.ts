/**
 * What commands ask of components that are on the page: while a component is mounted it offers what it can do under a name,
 * so that keys and search reach it without knowing it.
 */
export interface Targets {
  readonly search: { readonly open: () => void }
  readonly table: {
    /** Puts the caret into what is written on the selected entry. */
    readonly write: () => void
  }
  readonly scope: { readonly fit: () => void; readonly ghost: () => void }
  readonly stage: {
    readonly zoomBy: (factor: number) => void
    readonly fit: () => void
    readonly actualSize: () => void
    /** Looks straight at a piece in depth again. */
    readonly lookStraight: () => void
  }
}

const targets: { -readonly [K in keyof Targets]?: Targets[K] | undefined } = {}

/** Offers a target until the component that calls this is unmounted. */
export function offerTarget<K extends keyof Targets>(name: K, target: Targets[K]): void {
  targets[name] = target
  onScopeDispose(() => {
    if (targets[name] === target) targets[name] = undefined
  })
}
export const targetNamed = <K extends keyof Targets>(name: K): Targets[K] | undefined => targets[name]
