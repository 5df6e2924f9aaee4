import { judgingIn } from '../../judge.ts'
import { remarksIn, tasksIn } from '../../options.ts'
import type { Plain } from '../../options.ts'
import type words from './words.en.json'

export const { speaksFor, speaksAgainst, bars } = judgingIn<keyof typeof words.judgement>()
export const remark = remarksIn<Plain<keyof typeof words.remark>>()
export const task = tasksIn<keyof typeof words.task>()
