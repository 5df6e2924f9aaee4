import { describe, expect, it } from 'vitest'
import { addressKey } from './throttle.ts'

describe('one person’s address', () => {
  it('is the whole of an IPv4 address, and the network of a household of IPv6', () => {
    expect(addressKey('203.0.113.7')).toBe('203.0.113.7')
    const ours = addressKey('2001:db8:1:2:aaaa:bbbb:cccc:dddd')
    expect(addressKey('2001:db8:1:2::1')).toBe(ours)
    expect(addressKey('2001:db8:1:3::1')).not.toBe(ours)
    expect(addressKey('::1')).toBe(addressKey('0:0:0:0::5'))
  })
})
