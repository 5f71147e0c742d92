import { Tabs } from 'antd'
import { useSearchParams } from 'react-router'
import { PageHead } from '../frame/page-head'
import { usePageTitle } from '../frame/page-title'
import { LengthQuestion } from './length-question'
import { ProfileQuestion } from './profile-question'
import { RunQuestion } from './run-question'
import { StandQuestion } from './stand-question'
import { StoneQuestionForm } from './stone-question'

/** Questions of sizing, answered on the spot; each answer can be written into a pattern. */
export function DeskPage() {
  usePageTitle('Sizing desk')
  const [params, setParams] = useSearchParams()
  return (
    <div className="page">
      <PageHead title="Sizing desk" />
      <Tabs
        activeKey={params.get('question') ?? 'stone'}
        onChange={(question) => setParams({ question }, { replace: true })}
        items={[
          { key: 'stone', label: 'Round a stone', children: <StoneQuestionForm /> },
          { key: 'stand', label: 'Standing round a core', children: <StandQuestion /> },
          { key: 'length', label: 'To a length', children: <LengthQuestion /> },
          { key: 'profile', label: 'Fringe and petals', children: <ProfileQuestion /> },
          { key: 'run', label: 'To cover a run', children: <RunQuestion /> },
        ]}
      />
    </div>
  )
}
