<template><p class="p-6">One moment …</p></template>
