<script setup lang="ts" generic="T">
import { cloneVNode, type VNode } from 'vue'

/** One of a list, which opens as the device shows lists. By v-model, or by `:value` with its own events. */
defineOptions({ inheritAttrs: false })
const model = defineModel<T>()
const attrs = useAttrs()
// for good: a field does not change whose it is; with neither, it is a list of acts that shows its first option
const isGivenValue = 'value' in attrs || !('modelValue' in (getCurrentInstance()?.vnode.props ?? {}))
const slots = defineSlots<{ default: () => VNode[] }>()
const field = useTemplateRef<HTMLSelectElement>('field')
defineExpose({ focus: () => field.value?.focus() })

const chosen = () => (isGivenValue ? attrs.value : model.value)
const valueOf = (option: VNode) =>
  option.props && 'value' in option.props ? option.props.value : String(option.children).trim()
const isChosen = (option: VNode) => String(valueOf(option) ?? '') === String(chosen() ?? '')
/** Without a document no option has a chosen property: it carries an attribute, also in groups of options and lists. */
const marked = (nodes: VNode[]): VNode[] =>
  nodes.map(node => {
    if (node.type === 'option') return isChosen(node) ? cloneVNode(node, { selected: true }) : node
    if (!Array.isArray(node.children)) return node
    return Object.assign(cloneVNode(node), { children: marked(node.children as VNode[]) }) // of groups and lists, which hold nodes
  })
const Options = () => (typeof document === 'undefined' ? marked(slots.default()) : slots.default())
// a value that was given is not put into what came from the server
onMounted(() => {
  if (isGivenValue && field.value) field.value.value = String(attrs.value ?? '')
})
</script>

<template>
  <select v-if="isGivenValue" ref="field" v-bind="$attrs">
    <Options />
  </select>
  <select v-else ref="field" v-model="model" v-bind="$attrs">
    <Options />
  </select>
</template>
