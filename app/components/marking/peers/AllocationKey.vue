<template>
  <p class="key">
    <span><i class="k" />done</span><span><i class="k owed" />owed</span
    ><span><i class="k flag" />flagged</span><span><i class="k aside" />set aside</span>
  </p>
</template>

<style scoped>
.key {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  font-size: 0.75rem;
  color: var(--ink-2);
  margin-top: 8px;
}
.key span {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.k {
  width: 9px;
  height: 9px;
  display: block;
  background: var(--k-review);
}
.k.owed {
  background: none;
  border: 1.5px solid var(--k-review);
}
.k.flag {
  background: var(--brick);
  clip-path: polygon(0 0, 60% 0, 100% 60%, 100% 100%, 0 100%);
}
.k.aside {
  background: none;
  border: 1.3px solid var(--brick);
}
</style>
