import './theme/index.css'
import { startEarly } from './engine/early'

// before the page itself, which takes as long to load as the engine takes to be compiled
if (location.pathname.startsWith('/project/')) startEarly()
void import('./app')
