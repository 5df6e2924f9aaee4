import { ScreenTitle } from '../../ui/ScreenTitle.tsx'
import type { FramePlan } from '@klados/core/plan'
import type { FrameBody, FrameDocument, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import { Link, useParams } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useGardenQuery } from '../../data/api.ts'
import { usePlaces, useFrames } from '../../data/documents.ts'
import { useCatalogue } from '../../data/catalogue.ts'
import { useAppSelector } from '../../data/store.ts'
import { StillElevation } from '../../elevation/StillElevation.tsx'
import type { SheetItem, SheetSection } from '../../documents/sheet-content.ts'
import { BayDrawing } from '../../plan/BayDrawing.tsx'
import { drawLaid } from '../../plan/lay-out.ts'
import { useNames } from '../../plan/names.ts'
import { sheetHeading, inOrder } from '../../plan/sheet-content.ts'
import { usePlan } from '../../plan/use-plan.ts'
import { NotHere } from '../../ui/NotHere.tsx'
import { Loading } from '../../ui/Message.tsx'
import { useUnits } from '../../ui/units.tsx'

/**
 * The sheet to take to the wall: drawing, mark-out, materials, cut list, stringing order, cautions. Fits A4
 * and Letter.
 */
export function Sheet() {
  const { gardenId, placeId, frameId } = useParams() as { gardenId: string; placeId: string; frameId: string }
  const { t } = useTranslation()
  const places = usePlaces(gardenId)
  const frames = useFrames(gardenId)
  const { data: garden } = useGardenQuery(gardenId)
  const draft = useAppSelector((state) => state.drafts[frameId])
  const place = places?.find((one) => one.id === placeId)
  const stored = frames?.find((one) => one.id === frameId)
  const body = draft?.body ?? stored?.body
  if (!places || !frames || !garden) return <Loading>{t('app.loading')}</Loading>
  if (!place || !body) return <NotHere gardenId={gardenId} />
  return (
    <SheetOf
      gardenId={gardenId}
      place={place}
      frameId={frameId}
      stored={stored}
      body={body}
      isDraft={draft !== undefined}
      currency={garden.currency}
    />
  )
}

interface SheetOfProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly body: FrameBody
  readonly isDraft: boolean
  readonly currency: string
}

function SheetOf({ gardenId, place, frameId, stored, body, isDraft, currency }: SheetOfProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  const plan = usePlan(gardenId, frameId, place.body, body.design)
  const version = stored?.version ?? 0
  const input = { t, units, names, catalogue, place, body, plan, currency, version, isDraft }
  const { title, subtitle } = sheetHeading(input)
  const { first, sections } = inOrder(input)
  return (
    <article className="sheet mx-auto flex w-full max-w-[186mm] flex-col gap-4 bg-paper p-4 print:p-0">
      <p className="no-print flex flex-wrap items-center gap-x-4 gap-y-1">
        <Link to={`/g/${gardenId}/places/${place.id}/frame/${frameId}`}>{t('sheet.back')}</Link>
        <button type="button" className="btn btn-main" onClick={() => window.print()}>
          {t('sheet.print')}
        </button>
        <span className="text-slate">{t('sheet.paper')}</span>
      </p>
      <header className="flex flex-wrap items-baseline gap-x-4">
        <ScreenTitle tab={t('app.tabOf', { screen: t('app.sheet'), of: title })}>{title}</ScreenTitle>
        <p className="text-slate">{subtitle}</p>
      </header>
      {first.map((section) => (
        <Section key={section.title} section={section} />
      ))}
      <Drawing gardenId={gardenId} place={place} plan={plan} />
      {sections.map((section) => (
        <Section key={section.title} section={section} />
      ))}
    </article>
  )
}

function Drawing({ gardenId, place, plan }: { gardenId: string; place: Place; plan: FramePlan }) {
  const { t } = useTranslation()
  const catalogue = useCatalogue(gardenId)
  const { frame } = plan
  const views = frame?.hasDepth ? (['elevation', 'side', 'plan'] as const) : (['elevation'] as const)
  return (
    <>
      <BayDrawing gardenId={gardenId} place={place} plan={plan} />
      {views.map((view) => (
        <section key={view} className="break-inside-avoid">
          {views.length > 1 && <h2>{t(`frame.views.${view}`)}</h2>}
          <StillElevation
            label={t('sheet.elevation')}
            wall={place.body}
            surface={place.body.surface === 'open' ? 'open' : 'render'}
            from={view}
            list={[
              ...(view === 'elevation' ? drawSite(place.body, place.body.surface) : []),
              ...(frame ? drawLaid(frame, catalogue, view) : []),
            ]}
            tapeAlong
            showNumbers
            maxHeight="66mm"
          />
        </section>
      ))}
    </>
  )
}

const boxOf = ({ isBoxed, isAlarm }: Extract<SheetSection, { kind: 'list' }>) =>
  isAlarm ? 'border-2 border-iron p-2 text-iron' : isBoxed ? 'border-2 border-ink p-2' : ''

/** A section as the page sets it; the PDF sets the same one. */
function Section({ section }: { section: SheetSection }) {
  return (
    <section className={section.kind === 'list' ? boxOf(section) : ''}>
      <h2>{section.title}</h2>
      {section.intro && <p>{section.intro}</p>}
      {section.kind === 'list' ? (
        section.groups.map((group, n) => <Group key={n} {...group} />)
      ) : section.isTicked ? (
        <Ticked header={section.header} rows={section.rows} />
      ) : (
        <Table header={section.header} rows={section.rows} isTotal={section.isTotal ?? false} />
      )}
    </section>
  )
}

function Group({ title, items }: { title: string | null; items: readonly SheetItem[] }) {
  return (
    <>
      {title !== null && <h3 className="break-after-avoid text-slate">{title}</h3>}
      <ul>
        {items.map(({ lead, text }, i) => (
          <li key={i} className="break-inside-avoid border-b border-dotted border-faint py-0.5">
            <strong>{lead}</strong>: {text}
          </li>
        ))}
      </ul>
    </>
  )
}

interface Rows {
  readonly header: readonly string[]
  readonly rows: readonly (readonly string[])[]
}

/** Fewer than these stand in one column. */
const ROWS_IN_ONE = 6

/** As many short rows side by side as fit, each with a box to tick; what each figure is stands above it. */
function Ticked({ header, rows }: Rows) {
  const columns =
    rows.length < ROWS_IN_ONE
      ? 'max-w-md'
      : header.length <= 3
        ? 'columns-[10rem] sm:columns-3 print:columns-3'
        : 'columns-1 sm:columns-2 print:columns-2'
  return (
    <div className={`mt-1 gap-8 text-[0.8125rem] ${columns}`}>
      <TickedRow cells={header} isHeader />
      {rows.map((cells, n) => (
        <TickedRow key={n} cells={cells} isHeader={false} />
      ))}
    </div>
  )
}

function TickedRow({
  cells: [label, ...figures],
  isHeader,
}: {
  cells: readonly string[]
  isHeader: boolean
}) {
  return (
    <p
      className={`flex flex-wrap break-inside-avoid gap-x-2 border-b border-dotted border-faint ${isHeader ? 'text-slate' : ''}`}
    >
      <span aria-hidden="true" className={isHeader ? 'invisible' : ''}>
        ☐
      </span>
      <span className={`min-w-6 ${isHeader ? '' : 'font-semibold'}`}>{label}</span>
      {figures.map((figure, i) => (
        <span
          key={i}
          className={`flex-1 text-right ${!isHeader && figure.length <= SHORT ? 'whitespace-nowrap' : ''}`}
        >
          {figure}
        </span>
      ))}
    </p>
  )
}

/** Cells of so many letters are figures and stay in one piece; names give way before they do. */
const SHORT = 12

function Table({ header, rows, isTotal }: Rows & { isTotal: boolean }) {
  const side = (column: number) => (column === 0 ? 'text-left' : 'text-right')
  return (
    // Wider than a small screen with large letters: it is moved by itself, and not the page.
    <div className="overflow-x-auto">
      <table className="w-full">
        <thead className="text-[0.8125rem] text-slate">
          <tr>
            {header.map((title, column) => (
              <th key={title} scope="col" className={`font-normal wrap-anywhere ${side(column)}`}>
                {title}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, n) => (
            <tr
              key={n}
              className={
                isTotal && n === rows.length - 1
                  ? 'font-bold'
                  : 'break-inside-avoid border-b border-dotted border-faint'
              }
            >
              {row.map((cell, column) => (
                <td
                  key={column}
                  className={`${side(column)} ${column > 0 ? 'pl-2' : ''} ${cell.length <= SHORT && column > 0 ? 'whitespace-nowrap' : 'wrap-anywhere'}`}
                >
                  {cell}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
