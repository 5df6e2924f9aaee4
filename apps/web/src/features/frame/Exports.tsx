import type { FramePlan } from '@klados/core/plan'
import { FRAME_FILE_VERSION } from '@klados/contract/limits'
import type { FrameBody, FrameFile, FrameDocument, Place } from '@klados/contract'
import { drawSite } from '@klados/core/drawing'
import { elevationSvg, markOutCsv, materialsCsv } from '@klados/core/formats'
import { useState } from 'react'
import { Link } from 'react-router'
import { useTranslation } from '../../i18n/use-translation.tsx'
import { useCatalogue } from '../../data/catalogue.ts'
import type { FrameDraft } from '../../data/drafts.ts'
import { drawLaid } from '../../plan/lay-out.ts'
import { useNames } from '../../plan/names.ts'
import { sheetContent } from '../../plan/sheet-content.ts'
import { download } from '../../ui/download.ts'
import { useUnits } from '../../ui/units.tsx'

interface ExportsProps {
  readonly gardenId: string
  readonly place: Place
  readonly frameId: string
  readonly stored: FrameDocument | undefined
  readonly draft: FrameDraft | undefined
  readonly body: FrameBody
  readonly plan: FramePlan
  readonly currency: string
}

/** The frame to take along: on paper, as drawings in true scale, as tables, as a file to hand on. */
export function Exports({ gardenId, place, frameId, stored, draft, body, plan, currency }: ExportsProps) {
  const { t } = useTranslation()
  const units = useUnits()
  const names = useNames()
  const catalogue = useCatalogue(gardenId)
  const [isBusy, setIsBusy] = useState(false)
  const { frame, markOut, takeOff } = plan
  if (!frame || !markOut || !takeOff) return null
  const name = `${place.body.name} ${body.name}`
  const version = stored?.version ?? 0
  const isDraft = draft !== undefined
  const base = `/g/${gardenId}/places/${place.id}/frame/${frameId}`
  const list = () => [...drawSite(place.body, place.body.surface), ...drawLaid(frame, catalogue)]
  const pdf = async () => {
    setIsBusy(true)
    // Setting a document is the heaviest thing the app carries: fetched when it is wanted.
    const { sheetPdf } = await import('../../documents/pdf.ts')
    download(
      `${name}.pdf`,
      'application/pdf',
      await sheetPdf(
        sheetContent({ t, units, names, catalogue, place, body, plan, currency, version, isDraft }),
      ),
    )
    setIsBusy(false)
  }
  const dxf = async () => {
    const { drawingDxf } = await import('../../documents/dxf.ts')
    download(`${name}.dxf`, 'application/dxf', drawingDxf(list()))
  }
  const json = () => {
    const { photo: _, ...measures } = place.body
    const file: FrameFile = {
      format: 'klados-frame',
      version: FRAME_FILE_VERSION,
      place: measures,
      frame: { name: body.name, design: body.design },
    }
    download(`${name}.json`, 'application/json', JSON.stringify(file, null, 2))
  }
  const files = [
    ['pdf', () => void pdf()],
    ['svg', () => download(`${name}.svg`, 'image/svg+xml', elevationSvg(list(), name))],
    ['dxf', () => void dxf()],
    ['markOutCsv', () => download(`${name} mark-out.csv`, 'text/csv', markOutCsv(markOut))],
    [
      'materialsCsv',
      () =>
        download(
          `${name} materials.csv`,
          'text/csv',
          materialsCsv(takeOff.items, currency, (item) => names.item(item, catalogue)),
        ),
    ],
    ['json', json],
  ] as const
  return (
    <div className="flex flex-wrap items-start gap-x-4 gap-y-1">
      <Link to={`${base}/sheet`}>{t('frame.sheet')}</Link>
      {stored && <Link to={`${base}/build`}>{t('frame.build')}</Link>}
      <details className="open:basis-full">
        <summary className="cursor-pointer underline underline-offset-[3px]">{t('frame.takeAlong')}</summary>
        <ul className="mt-1 flex flex-col border border-faint bg-paper p-1">
          {files.map(([key, save]) => (
            <li key={key}>
              <button
                type="button"
                className="min-h-9 w-full px-2 text-left hover:bg-plaster"
                disabled={key === 'pdf' && isBusy}
                onClick={save}
              >
                {t(`frame.${key}`)}
              </button>
            </li>
          ))}
        </ul>
      </details>
    </div>
  )
}
