import { QueryClient, QueryClientProvider } from '@tanstack/react-query'
import { lazy, StrictMode } from 'react'
import { createRoot } from 'react-dom/client'
import { BrowserRouter, Route, Routes } from 'react-router'
import { ProjectPage } from './board/ProjectPage'
import { Door } from './crew/Door'
import { StartPage } from './start/StartPage'
import { beginSize } from './theme/size'
import { beginTheme } from './theme/theme'

/** Every control in every state, for whoever works on them: not in what ships. */
const States = import.meta.env.DEV ? lazy(() => import('./states/StatesPage')) : null

beginTheme()
beginSize()

createRoot(document.getElementById('root')!).render(
  <StrictMode>
    <QueryClientProvider client={new QueryClient({ defaultOptions: { queries: { retry: 1 } } })}>
      <BrowserRouter>
        <Door>
          <Routes>
            <Route path="/" element={<StartPage />} />
            <Route path="/project/:id" element={<ProjectPage />} />
            {States && <Route path="/states" element={<States />} />}
          </Routes>
        </Door>
      </BrowserRouter>
    </QueryClientProvider>
  </StrictMode>,
)
