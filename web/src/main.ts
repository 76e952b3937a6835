import './theme/index.css'
import { startEarly } from './engine/early'

// before the page itself, which takes as long to load as the engine takes to be compiled; on the list of projects when that is
// drawn, for the one that is opened next
if (location.pathname.startsWith('/project/')) startEarly()
else setTimeout(startEarly, 500)
void import('./app')
