import {
  Document,
  Font,
  Image as Picture,
  Page,
  Path,
  renderToBuffer,
  StyleSheet,
  Svg,
  Text,
  View,
} from '@react-pdf/renderer'
import { join } from 'node:path'
import type { SheetPart, SheetWords } from '@/core/hand-back/sheet-words'
import { displayList } from '@/core/socket/map/display-list'
import type { Marks } from '@/core/socket/damage/mark'
import type { Socket } from '@/core/socket/model/socket'
import { inkColours, inkStyle } from '@/core/socket/map/svg'
import { sayMoment, sayMoney } from '@/core/reader'
import type { Reader } from '@/core/reader'

const fonts = join(process.cwd(), 'node_modules/@fontsource')
const next = (weight: number) =>
  `${fonts}/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`
const noto = (subset: string) => `${fonts}/noto-sans/files/noto-sans-${subset}-400-normal.woff`

/** The faces anew: those that have printed a sheet lose letters on the next. */
function loadFaces(): void {
  const known: Record<string, unknown> = Font.getRegisteredFonts()
  for (const family of ['Next', 'Mono', 'Greek', 'Micro']) delete known[family]
  Font.register({
    family: 'Next',
    fonts: [
      { src: next(400), fontWeight: 400 },
      { src: next(600), fontWeight: 600 },
    ],
  })
  Font.register({
    family: 'Mono',
    src: `${fonts}/atkinson-hyperlegible-mono/files/atkinson-hyperlegible-mono-latin-400-normal.woff`,
  })
  Font.register({ family: 'Greek', src: noto('greek') })
  Font.register({ family: 'Micro', src: noto('latin') })
}
Font.registerHyphenationCallback((word) => [word])

const ink = '#1f262d'
const soft = '#565d62'
const line = '#d5cdbb'
const style = StyleSheet.create({
  page: { padding: 42, fontFamily: ['Next', 'Greek', 'Micro'], fontSize: 10, color: ink, lineHeight: 1.35 },
  head: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    borderBottomWidth: 1.5,
    borderBottomColor: ink,
    paddingBottom: 8,
  },
  title: { fontSize: 17, fontWeight: 600, lineHeight: 1.2 },
  soft: { color: soft },
  tag: { fontFamily: 'Mono', fontSize: 14, lineHeight: 1.3, textAlign: 'right' },
  maps: { flexDirection: 'row', gap: 18, marginTop: 12 },
  columns: { flexDirection: 'row', gap: 22 },
  column: { flex: 1 },
  part: { marginTop: 12 },
  partTitle: {
    fontWeight: 600,
    fontSize: 11,
    borderBottomWidth: 0.8,
    borderBottomColor: ink,
    paddingBottom: 2,
  },
  item: { borderBottomWidth: 0.5, borderBottomColor: line, paddingVertical: 2.5 },
  close: {
    flexDirection: 'row',
    justifyContent: 'space-between',
    marginTop: 14,
    borderTopWidth: 0.8,
    borderTopColor: ink,
    paddingTop: 4,
  },
  sign: { flexDirection: 'row', alignItems: 'flex-end', gap: 16, marginTop: 22 },
  line: { flex: 1, height: 26, borderBottomWidth: 0.8, borderBottomColor: ink },
  foot: {
    position: 'absolute',
    top: 806,
    left: 42,
    right: 42,
    textAlign: 'center',
    color: soft,
    fontSize: 9,
  },
})

export interface Sheet {
  readonly words: SheetWords
  /** The field as it was first found and as it is left; null when the socket was never mapped. */
  readonly maps: { readonly before: Marks; readonly after: Marks } | null
  /** Parts of the technical sheet; none on the owner’s. */
  readonly technical: readonly SheetPart[] | null
  readonly version: number
  /** How it was signed; null for one that nobody has signed. */
  readonly signed: { readonly at: string; readonly how: string; readonly png: Uint8Array | null } | null
  readonly tag: string
  readonly at: string
  readonly reader: Reader
  readonly owner: string
  readonly socket: Socket | null
}

/** A sheet as a PDF file; one after the other in a thread. */
export function printSheet(sheet: Sheet): Promise<Buffer> {
  loadFaces()
  return renderToBuffer(SheetPdf(sheet))
}

/** The sheet as a PDF: the same content as on the screen. */
function SheetPdf({ words, maps, technical, version, signed, tag, at, reader, owner, socket }: Sheet) {
  const { parts } = words
  const half = Math.ceil(parts.length / 2)
  return (
    <Document title={`${tag} ${technical ? 'technical sheet' : 'hand-back'}`} language="en">
      <Page size="A4" style={style.page}>
        <View style={style.head}>
          <View style={{ flex: 1, paddingRight: 20 }}>
            <Text style={style.title}>{words.title || 'no board named'}</Text>
            {technical && <Text style={{ fontWeight: 600 }}>technical sheet</Text>}
            {words.complaint !== '' && <Text style={style.soft}>brought in because: {words.complaint}</Text>}
            {owner !== '' && !technical && <Text>for {owner}</Text>}
          </View>
          <View>
            <Text style={style.tag}>{tag}</Text>
            {version > 1 && <Text style={{ textAlign: 'right' }}>version {version}</Text>}
            <Text style={{ textAlign: 'right' }}>{sayMoment(reader, at, 'longDate')}</Text>
            <Text style={{ textAlign: 'right', fontWeight: 600 }}>{words.outcome}</Text>
          </View>
        </View>
        {socket && maps && (
          <View style={style.maps} wrap={false}>
            <Field socket={socket} marks={maps.before} caption="the socket as found" />
            <Field socket={socket} marks={maps.after} caption="as it is left" />
          </View>
        )}
        {technical ? (
          technical.map((part) => <Part key={part.title} {...part} />)
        ) : (
          <View style={style.columns}>
            {[parts.slice(0, half), parts.slice(half)].map((column) => (
              <View key={column[0]!.title} style={style.column}>
                {column.map((part) => (
                  <Part key={part.title} {...part} />
                ))}
              </View>
            ))}
          </View>
        )}
        <View style={style.close} wrap={false}>
          <Text>{words.minutes} minutes at the bench</Text>
          <Text style={{ fontWeight: 600 }}>
            {words.priceMinor === null ? '' : sayMoney(reader, words.priceMinor)}
          </Text>
        </View>
        {!technical && (
          <View style={style.sign} wrap={false}>
            <Text>
              {signed
                ? `Received, ${signed.how}, ${sayMoment(reader, signed.at, 'longDate')}`
                : 'Received, with this sheet:'}
            </Text>
            {signed?.png && (
              <Picture src={{ data: Buffer.from(signed.png), format: 'png' }} style={{ height: 40 }} />
            )}
            {!signed && <View style={style.line} />}
          </View>
        )}
        <Text
          style={style.foot}
          fixed
          render={({ pageNumber, totalPages }) => `${tag}, page ${pageNumber} of ${totalPages}`}
        />
      </Page>
    </Document>
  )
}

function Part({ title, lines, none }: SheetPart) {
  return (
    <View style={style.part}>
      <Text style={style.partTitle}>{title}</Text>
      {lines.length === 0 && <Text style={style.soft}>{none}</Text>}
      {lines.map((text) => (
        <View key={text} style={style.item} wrap={false}>
          <Text>{text.charAt(0).toUpperCase() + text.slice(1)}</Text>
        </View>
      ))}
    </View>
  )
}

function Field({ socket, marks, caption }: { socket: Socket; marks: Marks; caption: string }) {
  const list = displayList(socket, { marks, looked: null })
  const [x, y, w, h] = list.box
  return (
    <View style={{ flex: 1 }}>
      <Svg viewBox={`${x} ${y} ${w} ${h}`} style={{ width: 246, height: (246 * h) / w }}>
        {list.paths
          .filter(({ ink: name }) => name !== 'pattern')
          .map(({ ink: name, d }) => {
            const { fill, width } = inkStyle[name]
            const colour = inkColours.paper[name]
            return fill ? (
              <Path key={name} d={d} fill={colour} />
            ) : (
              <Path key={name} d={d} stroke={colour} strokeWidth={width * socket.pitchMm} fill="none" />
            )
          })}
      </Svg>
      <Text style={style.soft}>
        {caption}: {Object.keys(marks).length} marked
      </Text>
    </View>
  )
}
