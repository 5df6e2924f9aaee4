import { expose } from 'comlink'
import { background } from './background.ts'

expose(background)
