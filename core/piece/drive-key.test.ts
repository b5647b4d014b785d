import { expect, it } from 'vitest'
import {
  drivenPart,
  drivenProperty,
  drivenSignal,
  isSignal,
  propertyKey,
  signalKey,
  splitDriveKey,
} from './drive-key.ts'

it('reads what it wrote of a property', () => {
  const key = propertyKey('p1', 'strokeWidth')
  expect(key).toBe('p1.strokeWidth')
  expect(isSignal(key)).toBe(false)
  expect(splitDriveKey(key)).toEqual(['p1', 'strokeWidth'])
})

it('reads what it wrote of a signal, which has neither part nor property', () => {
  const key = signalKey('s1')
  expect(isSignal(key)).toBe(true)
  expect(drivenSignal(key)).toBe('s1')
  expect(splitDriveKey(key)).toEqual(['', ''])
})

it('finds nothing in what is no key', () => {
  expect([drivenPart(''), drivenProperty(''), drivenPart('p1'), drivenProperty('p1')]).toEqual(['', '', '', ''])
})
