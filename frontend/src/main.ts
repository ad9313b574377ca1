import { mount } from 'svelte'
import App from './App.svelte'
import './app.css'
import { beginTab } from './tabs'
import { applyTheme } from './theme.svelte'

applyTheme()
await beginTab()
mount(App, { target: document.getElementById('app')! })
