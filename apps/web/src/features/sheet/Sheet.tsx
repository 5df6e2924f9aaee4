import type { FrameBody, Place } from '@klados/contract'
import { drawFrame, drawWall } from '@klados/core/drawing'
import { planFrame } from '@klados/core/materials'
import type { FramePlan } from '@klados/core/materials'
import { useMemo } from 'react'
import { useTranslation } from 'react-i18next'
import { Link, Navigate, useParams } from 'react-router'
import { useFramesQuery, useGardenQuery, usePlacesQuery } from '../../data/api.ts'
import { formatDate, todayHere } from '../../data/dates.ts'
import { useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import { itemWords, pieceLetter } from '../../plan/words.ts'
import { Loading } from '../../ui/Message.tsx'
import { formatMoney } from '../../ui/money.ts'
import { useUnits } from '../../ui/units.tsx'

/** The sheet to take to the wall: drawing, mark-out, materials, cut list, stringing order, cautions. Fits A4 and Letter. */
export function Sheet() {
  const { gardenId, placeId, frameId } = useParams() as { gardenId: string; placeId: string; frameId: string }
  const { t } = useTranslation()
  const { data: places } = usePlacesQuery(gardenId)
  const { data: frames } = useFramesQuery(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const draft = useAppSelector((state) => state.drafts[frameId])
  const place = places?.find((one) => one.id === placeId)
  const stored = frames?.find((one) => one.id === frameId)
  const body = draft?.body ?? stored?.body
  if (!places || !frames || !garden) return <Loading>{t('app.loading')}</Loading>
  if (!place || !body) return <Navigate replace to={`/g/${gardenId}/places`} />
  const plan = planFrame(place.body, place.body.surface, body.design)
  return (
    <article className="sheet mx-auto flex w-full max-w-[186mm] flex-col gap-4 bg-paper p-4 print:p-0">
      <p className="no-print flex items-center gap-4">
        <Link to={`/g/${gardenId}/places/${placeId}/frame/${frameId}`}>{t('sheet.back')}</Link>
        <button type="button" className="btn btn-main" onClick={() => window.print()}>{t('sheet.print')}</button>
        <span className="text-slate">{t('sheet.paper')}</span>
      </p>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <h1>{t('sheet.title', { frame: body.name, place: place.body.name })}</h1>
        <p className="text-slate">
          {t('sheet.madeOn', { date: formatDate(todayHere()), version: stored?.version ?? 0 })}{draft ? `, ${t('sheet.draft')}` : ''}
        </p>
      </header>
      <Drawing place={place} plan={plan} />
      <MarkOut place={place} plan={plan} />
      <Materials body={body} plan={plan} currency={garden.currency} />
      <CutList plan={plan} />
      <Order plan={plan} />
      <Cautions plan={plan} />
    </article>
  ) // prettier-ignore
}

function Drawing({ place, plan }: { place: Place; plan: FramePlan }) {
  const { t } = useTranslation()
  const list = useMemo(
    () => [...drawWall(place.body), ...(plan.frame ? drawFrame(plan.frame) : [])],
    [place, plan],
  )
  return (
    <StillElevation label={t('sheet.elevation')} wall={place.body} surface="render" list={list} tapeAlong showNumbers maxHeight="66mm" />
  ) // prettier-ignore
}

function MarkOut({ place, plan }: { place: Place; plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!plan.markOut) return null
  const { rows, diagonalM } = plan.markOut
  const isMoved = rows.some((row) => row.movedM > 5e-4)
  return (
    <section>
      <h2>{t('slip.markOut')}</h2>
      <p>{t('slip.markOutFrom', { end: t(`place.${place.body.viewingEnd}`) })} {diagonalM !== null && `${t('slip.diagonal')} ${units.length(diagonalM, 'short')}.`}</p>
      <div className={`mt-1 gap-8 text-[13px] ${isMoved ? 'columns-1 sm:columns-2 print:columns-2' : 'columns-2 sm:columns-3 print:columns-3'}`}>
        {rows.map((row) => (
          <p key={row.nodeId} className="flex break-inside-avoid gap-2 whitespace-nowrap border-b border-dotted border-faint">
            <span aria-hidden="true">☐</span>
            <span className="w-6 font-semibold">{row.number}</span>
            <span className="flex-1 text-right">{units.length(row.alongM, 'short')}</span>
            <span className="flex-1 text-right">{units.length(row.heightM, 'short')}</span>
            {isMoved && (
              <span className="w-32 text-right text-ochre">
                {row.movedM > 5e-4 && `${t('sheet.ideal')} ${units.length(row.idealAlongM, 'short')}, ${units.length(row.idealHeightM, 'short')}`}
              </span>
            )}
          </p>
        ))}
      </div>
    </section>
  ) // prettier-ignore
}

function Materials({ body, plan, currency }: { body: FrameBody; plan: FramePlan; currency: string }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!plan.takeOff) return null
  const { items, cost, drill } = plan.takeOff
  return (
    <section className="break-inside-avoid">
      <h2>{t('sheet.materials')}</h2>
      <table className="w-full">
        <thead className="text-left text-[13px] text-slate">
          <tr>
            <th className="font-normal" scope="col">{t('sheet.item')}</th>
            <th className="text-right font-normal" scope="col">{t('sheet.quantity')}</th>
            <th className="text-right font-normal" scope="col">{t('sheet.price')}</th>
          </tr>
        </thead>
        <tbody>
          {items.map((item, i) => (
            <tr key={i} className="border-b border-dotted border-faint">
              <td>
                {itemWords(t, units, item, { fixingId: body.design.fixingId, plugMm: drill.plugMm })}
                {item.what === 'roll' && `, ${t(`frame.wireName.${body.design.wireId}`)}`}
              </td>
              <td className="text-right">{item.quantity}</td>
              <td className="text-right">{formatMoney(item.price, currency)}</td>
            </tr>
          ))}
          <tr className="font-bold">
            <td colSpan={2}>{t('sheet.total')}</td>
            <td className="text-right">{formatMoney(cost, currency)}</td>
          </tr>
        </tbody>
      </table>
      <p className="mt-1">{t('sheet.tools')}: {t('sheet.toolList', { bit: drill.bitMm })}</p>
    </section>
  ) // prettier-ignore
}

function CutList({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!plan.cutting || !plan.stringing) return null
  const { pieces } = plan.stringing
  return (
    <section className="break-inside-avoid">
      <h2>{t('sheet.cutList')}</h2>
      {plan.cutting.rolls.map((roll, n) => (
        <p key={n}>
          <strong>{t('sheet.roll', { n: n + 1, length: units.length(roll.lengthM) })}</strong>:{' '}
          {t('sheet.cuts', { pieces: roll.cuts.map((cut) => `${pieceLetter(cut)} ${units.length(pieces[cut]!.cutLengthM)}`).join(', '), offcut: units.length(roll.offcutM) })}
        </p>
      ))}
    </section>
  ) // prettier-ignore
}

function Order({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  const units = useUnits()
  if (!plan.stringing || !plan.frame) return null
  const { nodes } = plan.frame
  const number = (index: number) => nodes[index]!.number
  return (
    <section>
      <h2>{t('sheet.order')}</h2>
      <p>{t('sheet.strainer')}</p>
      <ol>
        {plan.stringing.pieces.map((piece, i) => {
          const [from, ...rest] = piece.nodes.map(number)
          const to = rest.pop()
          return (
            <li key={i} className="break-inside-avoid border-b border-dotted border-faint py-0.5">
              <strong>{t('sheet.piece', { letter: pieceLetter(i), length: units.length(piece.cutLengthM) })}</strong>:{' '}
              {rest.length > 0 ? t('sheet.steps', { from, through: rest.join(', '), to }) : t('sheet.stepsDirect', { from, to })}
            </li>
          )
        })}
      </ol>
    </section>
  ) // prettier-ignore
}

function Cautions({ plan }: { plan: FramePlan }) {
  const { t } = useTranslation()
  return (
    <section className="break-inside-avoid border-2 border-ink p-2">
      <h2>{t('slip.cautions')}</h2>
      <ul>
        {plan.takeOff?.cautions.map((caution) => (
          <li key={caution}>{t(`caution.${caution}`)}</li>
        ))}
      </ul>
    </section>
  )
}
