/** What can be done with an example of the manual where it stands: copied, or put into the formula in hand. */
import type { InjectionKey } from 'vue'

export interface ExampleUse {
  readonly says: string
  readonly title: string
  readonly do: (text: string) => void
}

const KEY: InjectionKey<() => readonly ExampleUse[]> = Symbol('examples')

export const provideExamples = (uses: () => readonly ExampleUse[]): void => provide(KEY, uses)
export const useExamples = (): (() => readonly ExampleUse[]) => inject(KEY, () => [])
