<template><p>Rekko</p></template>
