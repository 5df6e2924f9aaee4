import { describe, expect, it } from 'vitest'
import { drawFrame, drawSite } from '../drawing/index.ts'
import { makeFrame, markOut } from '../frame/index.ts'
import { options, tierLevels } from '../../test/frames.ts'
import type { Site } from '../frame/index.ts'
import { elevationSvg, markOutCsv, materialsCsv, toCsv } from './index.ts'

const wall: Site = { widthM: 2, usableHeightM: 1, firstForkM: 0.4, viewingEnd: 'left', avoid: [] }
const frame = makeFrame(wall, { kind: 'tiers', levels: tierLevels(0.5, 1), maxSupportSpacingM: 1 }, options)

describe('CSV', () => {
  it('quotes what RFC 4180 wants quoted and ends lines with CRLF', () => {
    expect(
      toCsv(
        ['a', 'b'],
        [
          ['x, "y"', 1.5],
          ['two\nlines', -2],
        ],
      ),
    ).toBe('a,b\r\n"x, ""y""",1.5\r\n"two\nlines",-2\r\n')
  })

  it('keeps text from running as a formula', () => {
    expect(toCsv(['a'], [['=1+1'], ['@x'], [-1]])).toBe("a\r\n'=1+1\r\n'@x\r\n-1\r\n")
    for (const cell of ['\t=1', '\r=1', '\0', '\u007f', ' =1', '\u00a0+1', '\u200b=1', '\uff1d1', '-cmd'])
      expect([
        cell,
        toCsv(['a'], [[cell]])
          .slice(3)
          .replace('"', '')[0],
      ]).toEqual([cell, "'"])
    for (const cell of ['South wall', '2 = 1 + 1', 'a@b', ''])
      expect(toCsv(['a'], [[cell]])).toBe(`a\r\n${cell}\r\n`)
  })

  it('gives the mark-out in whole millimetres, a line a node', () => {
    const lines = markOutCsv(markOut(frame, wall)).trimEnd().split('\r\n')
    expect(lines).toHaveLength(7)
    expect(lines[1]).toBe('1,node,0,500,0,0,500,0,set')
    expect(lines[6]).toBe('6,node,2000,1000,0,2000,1000,0,set')
  })

  it('gives materials with the price of each line', () => {
    const csv = materialsCsv(
      [{ what: 'fixing', fixingId: 'eye-100', quantity: 6, price: 8.4 }],
      'EUR',
      () => 'Eye, 100 mm',
    )
    expect(csv).toBe('item,quantity,price_EUR\r\n"Eye, 100 mm",6,8.40\r\n')
  })
})

describe('the true-scale SVG', () => {
  const svg = elevationSvg(
    [...drawSite(wall, 'brick'), ...drawFrame(frame, { view: 'elevation', ...options })],
    'South <wall>',
  )

  it('has one user unit to the millimetre and runs the wires at their lengths', () => {
    const [, widthMm, , viewWidth] = /width="(\d+)mm" height="(\d+)mm" viewBox="\S+ \S+ (\d+)/.exec(svg)!
    expect(widthMm).toBe(viewWidth)
    const runs = [...svg.matchAll(/stroke-width="3" points="([-\d.]+),([-\d.]+) ([-\d.]+),([-\d.]+)"/g)]
    expect(runs).toHaveLength(4)
    for (const [, x1, , x2] of runs) expect(Math.abs(Number(x2) - Number(x1))).toBe(1000)
  })

  it('is inked for the paper it is fitted into: the same lengths, letters that can be read', () => {
    const paper = { widthMm: 184, heightMm: 105 }
    const list = [...drawSite(wall, 'brick'), ...drawFrame(frame, { view: 'elevation', ...options })]
    const fitted = elevationSvg(list, 'Wall', paper)
    const runs = (text: string) =>
      [...text.matchAll(/<polyline fill="none" stroke="#000" stroke-width="[\d.]+" points="([^"]+)"/g)].map(
        (match) => match[1],
      )
    expect(runs(fitted)).toEqual(runs(svg))
    const [, viewWidth] = /viewBox="\S+ \S+ (\S+) /.exec(fitted)!
    const letterMm = (Number(/font-size="([\d.]+)"/.exec(fitted)![1]) / Number(viewWidth)) * paper.widthMm
    expect(letterMm).toBeGreaterThan(2)
    expect(letterMm).toBeLessThan(4)
  })

  it('shows a member as wide as it is, round its middle line, and never thinner than a line', () => {
    const member = (widthM: number) => ({
      kind: 'member' as const,
      id: 'p',
      part: 'post' as const,
      points: [
        { xM: 0, yM: 0 },
        { xM: 0, yM: 2 },
      ],
      widthM,
      label: null,
    })
    const shape = (widthM: number) =>
      /<(\w+) fill="([^"]+)" stroke="#000" stroke-width="([\d.]+)" points="([^"]+)"/
        .exec(elevationSvg([member(widthM)], 'Post'))!
        .slice(1)
    expect(shape(0.1)).toEqual(['polygon', '#fff', '3', '-50,0 -50,-2000 50,-2000 50,0'])
    expect(shape(0.001)).toEqual(['polyline', 'none', '3', '0,0 0,-2000'])
  })

  it('has room for a figure that is longer than what it measures', () => {
    const at = { xM: 0.1, yM: 0 }
    const list = [{ kind: 'dimension', from: at, to: at, text: "18' 11 13/16 in" } as const]
    const [left, , width] = /viewBox="([^"]+)"/
      .exec(elevationSvg(list, 'x', { widthMm: 100, heightMm: 100 }))![1]!
      .split(' ')
      .map(Number) as [number, number, number]
    const size = Number(
      /font-size="([^"]+)"/.exec(elevationSvg(list, 'x', { widthMm: 100, heightMm: 100 }))![1],
    )
    expect(100 - left).toBeGreaterThan(0.25 * size * list[0]!.text.length)
    expect(left + width - 100).toBeGreaterThan(0.25 * size * list[0]!.text.length)
  })

  it('escapes what people type', () => {
    expect(svg).toContain('<title>South &#60;wall&#62;</title>')
  })
})
