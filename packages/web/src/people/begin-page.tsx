import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'
import type { Me } from '@tessellum/contract/people'
import { type BeginShop, beginShop, currencies, papers, timeZones } from '@tessellum/contract/settings'
import { languages } from '@tessellum/core/writing/languages'
import { Button, Checkbox, Form, Input, Select } from 'antd'
import { useState } from 'react'
import { Link, useNavigate } from 'react-router'
import { rulesOf } from '../frame/contract-rules'
import { usePageTitle } from '../frame/page-title'
import { Wordmark } from '../frame/wordmark'
import { call, keepSession, type ShopError } from '../shop/api'
import { read } from '../shop/queries'
import { PasswordFields } from './password-fields'
import { RingArt } from './ring-art'
import styles from './sign-in.module.css'

interface Fields {
  readonly shop: string
  readonly timeZone: string
  readonly currency: BeginShop['settings']['money']['currency']
  readonly language: BeginShop['settings']['documents']['language']
  readonly paper: BeginShop['settings']['documents']['paper']
  readonly fullName: string
  readonly name: string
  readonly password: string
  readonly examples: boolean
}

/** Where the address leads that the start command prints for an empty shop: its name, and its first owner. */
export function BeginPage() {
  usePageTitle('Begin a shop')
  const navigate = useNavigate()
  const client = useQueryClient()
  const [token] = useState(() => window.location.hash.slice(1))
  const { data: shop } = useQuery(read.shop)
  const begin = useMutation<Me, ShopError, Fields>({
    mutationFn: ({ shop: called, timeZone, currency, language, paper, fullName, name, password, examples }) =>
      call('POST /api/begin', {
        body: {
          token,
          owner: { fullName, name, password },
          settings: {
            profile: { name: called, address: '', footer: '', timeZone },
            money: { currency },
            documents: { language, paper },
          },
          examples,
        },
      }),
    onSuccess: (found) => {
      keepSession(found)
      client.setQueryData(read.me.queryKey, found)
      void client.invalidateQueries({ queryKey: read.shop.queryKey })
      void navigate('/bench', { replace: true })
    },
  })
  return (
    <div className={styles.page}>
      <div className={styles.art} aria-hidden="true">
        <RingArt />
      </div>
      <Form<Fields>
        name="begin"
        layout="vertical"
        requiredMark={false}
        initialValues={{
          currency: 'GBP',
          language: 'en',
          paper: 'A4',
          timeZone: timeZones.find((each) => each === Intl.DateTimeFormat().resolvedOptions().timeZone) ?? 'UTC',
          examples: true,
        }}
        onFinish={begin.mutate}
      >
        <p className={styles.above}>
          <Wordmark />
        </p>
        <h1>Begin your shop</h1>
        {shop && !shop.empty ? (
          <>
            <p className="quiet">{shop.name} has been begun already.</p>
            <Link to="/sign-in">To the sign-in page</Link>
          </>
        ) : (
          <>
            <p className={`quiet ${styles.lead}`}>
              It begins empty. You are its owner: you add the others, and settle everything else when you need it.
            </p>
            <Form.Item
              label="The shop is called"
              name="shop"
              rules={rulesOf(beginShop.shape.settings.shape.profile.shape.name)}
            >
              <Input autoFocus autoComplete="organization" maxLength={80} />
            </Form.Item>
            <div className="fields">
              <Form.Item label="Money" name="currency">
                <Select options={currencies.map((value) => ({ value, label: value }))} />
              </Form.Item>
              <Form.Item label="Documents in" name="language">
                <Select options={Object.values(languages).map(({ code, name }) => ({ value: code, label: name }))} />
              </Form.Item>
              <Form.Item label="Paper" name="paper">
                <Select options={papers.map((value) => ({ value, label: value === 'A4' ? 'A4' : 'US Letter' }))} />
              </Form.Item>
            </div>
            <Form.Item label="Time zone" name="timeZone">
              <Select showSearch options={timeZones.map((value) => ({ value, label: value }))} />
            </Form.Item>
            <Form.Item label="Your name" name="fullName" rules={rulesOf(beginShop.shape.owner.shape.fullName)}>
              <Input autoComplete="name" maxLength={80} />
            </Form.Item>
            <Form.Item
              label="Sign-in name"
              name="name"
              extra="Lowercase letters, digits, dots and hyphens."
              rules={rulesOf(beginShop.shape.owner.shape.name)}
            >
              <Input autoComplete="username" autoCapitalize="none" maxLength={60} />
            </Form.Item>
            <PasswordFields />
            <Form.Item name="examples" valuePropName="checked">
              <Checkbox>Add two patterns to learn with</Checkbox>
            </Form.Item>
            {begin.error && (
              <div role="alert" className="notice trouble">
                {begin.error.message} {begin.error.hint}
              </div>
            )}
            <Button type="primary" htmlType="submit" block size="large" loading={begin.isPending}>
              Begin
            </Button>
          </>
        )}
      </Form>
    </div>
  )
}
