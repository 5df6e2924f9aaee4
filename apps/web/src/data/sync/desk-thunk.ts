import type { Action, ThunkAction } from '@reduxjs/toolkit'
import type { SyncDesk } from './desk.ts'

/** Something done at the desk, as an action of the store. */
export const deskOf =
  <R>(act: (desk: SyncDesk) => R): ThunkAction<R, unknown, SyncDesk, Action> =>
  (_, __, desk) =>
    act(desk)
