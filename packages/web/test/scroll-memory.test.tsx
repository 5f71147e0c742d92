/** Pages begin at their top, and back and forward find them where they were left, however late what they show comes in. */
import { act, render, screen } from '@testing-library/react'
import { useRef } from 'react'
import { createMemoryRouter, Outlet, RouterProvider } from 'react-router'
import { useScrollMemory } from '../src/frame/scroll-memory'
import './on-screen'

/** How far the page can be scrolled: it grows as more of it comes in. */
let tall: number

function Frame() {
  const main = useRef<HTMLElement>(null)
  useScrollMemory(main)
  return (
    <main ref={main}>
      <Outlet />
    </main>
  )
}

function pages() {
  tall = 1000
  const router = createMemoryRouter(
    [
      {
        path: '/',
        element: <Frame />,
        children: [
          { path: 'list', element: <p>the list</p> },
          { path: 'item', element: <p>the item</p> },
        ],
      },
    ],
    { initialEntries: ['/list'] },
  )
  render(<RouterProvider router={router} />)
  const main = screen.getByRole('main')
  let top = 0
  Object.defineProperty(main, 'scrollTop', {
    get: () => top,
    set: (wanted: number) => {
      top = Math.min(wanted, tall)
      main.dispatchEvent(new Event('scroll'))
    },
  })
  return { main, go: (to: string | number) => act(async () => void (await router.navigate(to as string))) }
}
const grows = (main: HTMLElement, to: number) =>
  act(async () => {
    tall = to
    main.append(document.createElement('p'))
  })

test('another page begins at its top, the one before is found where it was left, and the next again', async () => {
  const { main, go } = pages()
  main.scrollTop = 400
  await go('/item')
  expect(main.scrollTop).toBe(0)
  main.scrollTop = 120
  await go(-1)
  expect(main.scrollTop).toBe(400)
  await go(1)
  expect(main.scrollTop).toBe(120)
})

test('another view of the same page stays where it is', async () => {
  const { main, go } = pages()
  main.scrollTop = 400
  await go('/list?show=low')
  expect(main.scrollTop).toBe(400)
})

test('the place is sought while the page fills, and no longer once it is found', async () => {
  const { main, go } = pages()
  main.scrollTop = 800
  await go('/item')
  tall = 100
  await go(-1)
  expect(main.scrollTop).toBe(100)
  await grows(main, 500)
  expect(main.scrollTop).toBe(500)
  await grows(main, 2000)
  expect(main.scrollTop).toBe(800)
  main.scrollTop = 50
  await grows(main, 3000)
  expect(main.scrollTop).toBe(50)
})

test('whoever scrolls meanwhile is not pulled away', async () => {
  const { main, go } = pages()
  main.scrollTop = 800
  await go('/item')
  tall = 100
  await go(-1)
  main.dispatchEvent(new Event('wheel'))
  main.scrollTop = 30
  await grows(main, 2000)
  expect(main.scrollTop).toBe(30)
})
