import { Button } from 'antd'
import { Marked, type Token, type Tokens } from 'marked'
import { useMemo } from 'react'
import { useNavigate } from 'react-router'
import styles from './help.module.css'

interface HelpDocumentProps {
  readonly text: string
  /** Puts an example into the pattern that is open; undefined where there is none. */
  readonly insert?: ((lines: readonly string[]) => void) | undefined
}

const marked = new Marked()

/** Prose in one piece, or an example. */
type Part = { readonly html: string } | { readonly example: readonly string[] }

function partsOf(text: string): Part[] {
  const parts: Part[] = []
  let prose: Token[] = []
  const end = () => {
    if (prose.length > 0) parts.push({ html: marked.parser(prose) })
    prose = []
  }
  for (const token of marked.lexer(text)) {
    const { type, lang, text: code } = token as Tokens.Code
    if (type !== 'code' || lang !== 'tess') {
      prose.push(token)
      continue
    }
    end()
    parts.push({ example: code.split('\n') })
  }
  end()
  return parts
}

/** A page of the help. Its links within the application are followed without loading it again. */
export function HelpDocument({ text, insert }: HelpDocumentProps) {
  const navigate = useNavigate()
  const parts = useMemo(() => partsOf(text), [text])
  return (
    // biome-ignore lint/a11y/useKeyWithClickEvents: links are followed by key as by click
    // biome-ignore lint/a11y/noStaticElementInteractions: only links in it are followed
    <div
      className={styles.document}
      onClick={(event) => {
        const link = (event.target as Element).closest('a')
        const to = link?.getAttribute('href')
        if (!to?.startsWith('/') || event.ctrlKey || event.metaKey) return
        event.preventDefault()
        void navigate(to)
      }}
    >
      {parts.map((part, i) =>
        'html' in part ? (
          // biome-ignore lint/security/noDangerouslySetInnerHtml: our own documents, which come with the application
          <div key={i} dangerouslySetInnerHTML={{ __html: part.html }} />
        ) : (
          <div key={i} className={styles.example}>
            <pre>{part.example.join('\n')}</pre>
            {insert && !isWhole(part.example) && (
              <Button size="small" onClick={() => insert(outdented(part.example))}>
                Insert
              </Button>
            )}
          </div>
        ),
      )}
    </div>
  )
}

/** A pattern of its own does not go into another. */
const isWhole = ([first = '']: readonly string[]) => first.trimStart().startsWith('pattern ')

/** Without the margin that all lines have: the ledger gives them its own. */
function outdented(lines: readonly string[]): string[] {
  const margins = lines.filter(Boolean).map((line) => /^ */.exec(line)?.[0].length ?? 0)
  const margin = Math.min(...margins)
  return lines.map((line) => line.slice(margin))
}
